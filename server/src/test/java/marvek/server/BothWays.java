package marvek.server;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethodCall;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Pairs of files that call each other, but for what a record or an enum holds. */
final class BothWays {
  private BothWays() {}

  static List<String> of(JavaClasses all) {
    Map<String, String> calls = new TreeMap<>();
    for (JavaClass c : all) {
      for (JavaMethodCall call : c.getMethodCallsFromSelf()) {
        String from = file(c);
        String to = file(call.getTargetOwner());
        if (!from.equals(to) && to.startsWith("marvek.") && !held(call)) {
          calls.putIfAbsent(
              from + " " + to, call.getOrigin().getName() + " asks " + call.getName());
        }
      }
    }
    List<String> out = new ArrayList<>();
    calls.forEach(
        (pair, how) -> {
          String[] two = pair.split(" ");
          String back = calls.get(two[1] + " " + two[0]);
          if (back != null && two[0].compareTo(two[1]) < 0) {
            out.add(two[0] + ": " + how + "; " + two[1] + ": " + back);
          }
        });
    return out;
  }

  /** Whether a call only reads what a record or an enum holds. */
  private static boolean held(JavaMethodCall call) {
    JavaClass owner = call.getTargetOwner();
    String name = call.getName();
    boolean data = owner.isRecord() || owner.isEnum();
    return data
        && (owner.tryGetField(name).isPresent()
            || List.of("values", "ordinal", "name", "valueOf", "equals", "hashCode", "toString")
                .contains(name));
  }

  private static String file(JavaClass c) {
    JavaClass outer = c;
    while (outer.getEnclosingClass().isPresent()) {
      outer = outer.getEnclosingClass().get();
    }
    return outer.getName();
  }
}
