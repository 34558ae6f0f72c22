package marvek.server.guard;

import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.catalina.valves.RemoteIpValve;
import org.springframework.boot.web.embedded.tomcat.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Puts the bounds before the server. */
@Configuration
class GuardConfig {
  /** As many connections in all; what is beyond waits to be accepted. */
  private static final int MOST_CONNECTIONS = 4096;

  @Bean
  WebServerFactoryCustomizer<TomcatServletWebServerFactory> guarded(GuardSettings settings) {
    return factory -> {
      List<String> proxies =
          settings.proxies().stream().map(String::strip).filter(p -> !p.isEmpty()).toList();
      factory.setProtocol(GuardedProtocol.class.getName());
      factory.addConnectorCustomizers(
          connector -> {
            if (connector.getProtocolHandler() instanceof GuardedProtocol guarded) {
              guarded.guard(settings.head(), settings.connections(), Set.copyOf(proxies));
              guarded.setMaxConnections(MOST_CONNECTIONS);
            }
          });
      if (!proxies.isEmpty()) {
        RemoteIpValve forwarded = new RemoteIpValve();
        forwarded.setInternalProxies(
            proxies.stream().map(Pattern::quote).collect(Collectors.joining("|")));
        forwarded.setRemoteIpHeader("x-forwarded-for");
        forwarded.setProtocolHeader("x-forwarded-proto");
        factory.addEngineValves(forwarded);
      }
      factory.addEngineValves(new PaceValve(settings));
    };
  }
}
