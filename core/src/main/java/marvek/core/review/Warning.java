package marvek.core.review;

import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * Something that does not go together.
 *
 * @param rule id of the check
 * @param corner id
 * @param kind the point it is about, or null
 * @param words what, and what to do
 */
public record Warning(String rule, String corner, @Nullable PointKind kind, Said words) {}
