package marvek.server;

import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.boot.test.context.TestComponent;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/** What the server answers to, as it finds it out itself. */
@TestComponent
class Endpoints {
  private final RequestMappingHandlerMapping mappings;

  Endpoints(@Qualifier("requestMappingHandlerMapping") RequestMappingHandlerMapping mappings) {
    this.mappings = mappings;
  }

  /** Methods and paths like {@code GET /api/runs/{id}/debrief}, in order. */
  Set<String> where(Predicate<String> path) {
    Set<String> out = new TreeSet<>();
    mappings
        .getHandlerMethods()
        .keySet()
        .forEach(
            info -> {
              for (String p : info.getPatternValues()) {
                for (RequestMethod m : info.getMethodsCondition().getMethods()) {
                  if (path.test(p)) {
                    out.add(m + " " + p);
                  }
                }
              }
            });
    return out;
  }
}
