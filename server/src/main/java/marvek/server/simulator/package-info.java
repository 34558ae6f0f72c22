/**
 * The simulated logger: has a reference driven for a run, as a file or a live line. It stands in
 * for a device and goes in by the same door.
 */
package marvek.server.simulator;
