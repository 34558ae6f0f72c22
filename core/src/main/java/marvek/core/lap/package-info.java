/**
 * A vehicle on a line: {@link marvek.core.lap.Conditions} of the air and the road, {@link
 * marvek.core.lap.Limits} of what the vehicle can do in them, and {@link
 * marvek.core.lap.LapSimulator}, which drives. No corner is known here, only a path.
 */
package marvek.core.lap;
