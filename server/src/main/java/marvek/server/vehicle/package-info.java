/** Vehicles and set-up sheets, each with its owner. */
package marvek.server.vehicle;
