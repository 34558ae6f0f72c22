/**
 * Two axles: what the front and the rear of a vehicle bear at a place, how much of their grip each
 * uses, and what that leaves of the lap that one point would drive.
 */
@NullMarked
package marvek.core.axle;

import org.jspecify.annotations.NullMarked;
