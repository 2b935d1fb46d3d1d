/**
 * Settings and books on disk: layouts, deliveries and run sheets in YAML, coding tables and books in CSV. Every reader
 * collects all {@link io.mivrel.files.settings.SettingsProblem}s of all files before it gives up, each with its place,
 * what is allowed there and the nearest allowed word. Start at {@link io.mivrel.files.settings.RunSheet#read}.
 */
package io.mivrel.files.settings;
