/** Runs, laps and debriefs as files. */
package marvek.server.export;
