/**
 * A vehicle by numbers, its classes with usual values, set-up sheets, and the check of all of them.
 * What the numbers lead to on a road is in {@code lap}.
 */
package marvek.core.vehicle;
