/**
 * Where one drives: outline files, the road made of them, its corners, heights and sight. Nothing
 * here knows a vehicle. Start with {@link marvek.core.circuit.CircuitReader}; {@link
 * marvek.core.circuit.Centreline} is the road that all other rooms ask.
 */
package marvek.core.circuit;
