/** Layouts as text: written by what a survey found, and mended for another form of a file. */
package io.mivrel.survey.settings;
