/**
 * How rules refuse: with what is wrong, where, and what to do. Every room above refuses by this one
 * shape, so that whoever answers a request needs to know one. Start with {@link
 * marvek.core.refusal.Refusal}.
 */
@org.jspecify.annotations.NullMarked
package marvek.core.refusal;
