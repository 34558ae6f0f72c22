/**
 * Laps held against the day that fits them: debrief, proposals, what became of promises, the
 * vehicle as laps show it.
 */
package marvek.server.debrief;
