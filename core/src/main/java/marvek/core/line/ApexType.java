package marvek.core.line;

/** Where in the corner the apex lies. */
public enum ApexType {
  EARLY,
  MIDDLE,
  LATE
}
