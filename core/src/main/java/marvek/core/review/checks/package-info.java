/**
 * What may not go together in a corner, a class each: {@link marvek.core.review.checks.Check} says
 * what one is, {@link marvek.core.review.checks.Case} what it may look at. Adding one is a class
 * here, a test, and its words.
 */
package marvek.core.review.checks;
