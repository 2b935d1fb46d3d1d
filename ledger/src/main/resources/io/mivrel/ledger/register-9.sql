-- Format 9: of lines without a name, such as bank lines, the figures are how they were coded.
UPDATE register_format SET format = 9;
