/**
 * On what practitioners differ: questions and the schools that answer them, the shape of the
 * pedals, what sliding costs, and the line that a choice asks for. No reference is known here; what
 * a choice costs in one is in {@code ways}.
 */
package marvek.core.technique;
