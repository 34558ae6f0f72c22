/**
 * Runs of a reference and their laps, packed, and the day each was driven on. How laps come here is
 * in {@code recording}.
 */
package marvek.server.run;
