/** The command {@code mivrel}: parses, calls the front door, prints. */
package io.mivrel.cli;
