/**
 * A second look at a reference: what does not go together, what a survey warns of, which markers it
 * uses, which corners are worth most. Start with {@link marvek.core.review.Consistency}; the checks
 * themselves are in {@code checks}.
 */
package marvek.core.review;
