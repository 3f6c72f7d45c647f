#pragma once

#include <string>

#include "cli/options.h"
#include "core/trace/settings.h"

namespace rim::cli {

/// What the command line says about pen strokes.
struct StrokeOptions {
  trace::TraceMethod method = trace::TraceMethod::Outline;
  std::string limit = "auto";
  double healPx = 0;
  trace::StrokeEnds ends = trace::StrokeEnds::Pen;
  std::string look = "hairline";
};

void addStrokes(Command& command, StrokeOptions& options);

/// Puts them into the settings of a trace.
void applyStrokes(trace::TraceSettings& settings, const StrokeOptions& options);

}  // namespace rim::cli
