/**
 * Files and lines from devices: stored as they came, recognised, read into laps by a job; the
 * watched folder and the live port.
 */
package marvek.server.recording;
