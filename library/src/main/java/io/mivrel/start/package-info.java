/**
 * The first minutes: from raw files, with a few answers, to a company folder that works. {@link
 * io.mivrel.start.CompanySetup} asks what the files do not tell and writes the settings; the {@link io.mivrel.start.Shelf}
 * has the deliveries to choose from.
 */
@org.jspecify.annotations.NullMarked
package io.mivrel.start;
