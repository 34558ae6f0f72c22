package marvek.core.circuit;

import java.util.List;

/**
 * What an outline gives when it is read as a circuit.
 *
 * @param centreline the road
 * @param corners its corners in driving order
 * @param remarks what was mended or assumed on the way, in plain words
 * @param noise estimated scatter of the points about the fitted line, metres
 */
public record Survey(
    Centreline centreline, List<Corner> corners, List<String> remarks, double noise) {}
