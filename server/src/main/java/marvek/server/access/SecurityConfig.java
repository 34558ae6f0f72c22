package marvek.server.access;

import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfTokenRequestAttributeHandler;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/** Who may ask for what: the interface's files and sign-in are open, all else needs a session. */
@Configuration
class SecurityConfig {
  private static final String POLICY =
      "default-src 'self'; img-src 'self' data: blob:; media-src 'self' blob:; style-src 'self' 'unsafe-inline';"
          + " script-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none';"
          + " form-action 'self'";

  @Bean
  SecurityFilterChain security(
      HttpSecurity http, SecurityContextRepository contexts, ObjectMapper json) throws Exception {
    return http.authorizeHttpRequests(
            allow ->
                allow
                    .requestMatchers(HttpMethod.GET, "/api/session")
                    .permitAll()
                    .requestMatchers(
                        HttpMethod.POST,
                        "/api/session",
                        "/api/session/demo",
                        "/api/session/password",
                        "/api/accounts")
                    .permitAll()
                    .requestMatchers("/api/**")
                    .authenticated()
                    .anyRequest()
                    .permitAll())
        .securityContext(c -> c.securityContextRepository(contexts))
        .csrf(
            csrf ->
                csrf.csrfTokenRepository(CookieCsrfTokenRepository.withHttpOnlyFalse())
                    .csrfTokenRequestHandler(new CsrfTokenRequestAttributeHandler()))
        .headers(
            headers ->
                headers
                    .contentSecurityPolicy(csp -> csp.policyDirectives(POLICY))
                    .referrerPolicy(r -> r.policy(ReferrerPolicy.SAME_ORIGIN)))
        .exceptionHandling(
            e ->
                e.authenticationEntryPoint(
                        (request, response, failure) ->
                            refuse(json, response, 401, "You are not signed in.", "Sign in first."))
                    .accessDeniedHandler(
                        (request, response, failure) ->
                            refuse(
                                json,
                                response,
                                403,
                                "This request is not allowed.",
                                "Reload the page and try again.")))
        .formLogin(form -> form.disable())
        .httpBasic(basic -> basic.disable())
        .logout(logout -> logout.disable())
        .requestCache(cache -> cache.disable())
        .build();
  }

  private static void refuse(
      ObjectMapper json, HttpServletResponse response, int status, String what, String remedy)
      throws IOException {
    response.setStatus(status);
    response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    json.writeValue(
        response.getOutputStream(), Map.of("status", status, "detail", what, "remedy", remedy));
  }

  @Bean
  SecurityContextRepository contexts() {
    return new HttpSessionSecurityContextRepository();
  }

  @Bean
  PasswordEncoder passwordEncoder() {
    return new BCryptPasswordEncoder();
  }

  /** Sign-in is {@code SignIn}'s; this keeps the framework from inventing a user of its own. */
  @Bean
  UserDetailsService nobody() {
    return name -> {
      throw new UsernameNotFoundException(name);
    };
  }

  @Bean
  Clock clock() {
    return Clock.systemUTC();
  }
}
