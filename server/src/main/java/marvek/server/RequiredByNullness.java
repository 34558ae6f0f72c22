package marvek.server;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Tells in the API's description that a record's field is always there unless it is nullable. */
@Component
class RequiredByNullness implements ModelConverter {
  @Override
  public @Nullable Schema<?> resolve(
      AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
    Schema<?> schema = chain.hasNext() ? chain.next().resolve(type, context, chain) : null;
    JavaType java = Json.mapper().constructType(type.getType());
    if (java != null && java.getRawClass().isRecord()) {
      Schema<?> defined = context.getDefinedModels().get(java.getRawClass().getSimpleName());
      if (defined != null) {
        List<String> required =
            Arrays.stream(java.getRawClass().getRecordComponents())
                .filter(c -> !nullable(c))
                .map(RecordComponent::getName)
                .toList();
        defined.setRequired(required);
      }
    }
    return schema;
  }

  private static boolean nullable(RecordComponent component) {
    return component.getAnnotatedType().isAnnotationPresent(Nullable.class);
  }
}
