/**
 * What each way of doing a corner costs: every school driven at equal margin ({@link
 * marvek.core.ways.Choices}), linked corners by how much of one is given ({@link
 * marvek.core.ways.Compromise}).
 */
package marvek.core.ways;
