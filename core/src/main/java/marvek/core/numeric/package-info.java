/**
 * Solvers that no library has in this shape: cyclic banded systems, bounded quadratic programs
 * (decision 2). Nothing here knows what it solves.
 */
package marvek.core.numeric;
