/** Circuits with their layout versions, roads and surveys, each with its owner. */
package marvek.server.circuit;
