/**
 * The line across the road: of least bending, then of least time. Start with {@link
 * marvek.core.line.QuickestLine}; what schools ask of a line is laid in {@code technique}.
 */
package marvek.core.line;
