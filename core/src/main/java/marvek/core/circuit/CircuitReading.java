package marvek.core.circuit;

import java.util.List;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * What an outline gives when it is read as a circuit.
 *
 * @param centreline the road
 * @param corners its corners in driving order
 * @param remarks what was mended or assumed on the way, in plain words
 * @param plane where on the earth the metres lie; null for a file without degrees
 * @param noise estimated scatter of the points about the fitted line, metres
 */
public record CircuitReading(
    Centreline centreline,
    List<Corner> corners,
    List<Said> remarks,
    @Nullable LocalPlane plane,
    double noise) {}
