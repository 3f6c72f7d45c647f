#pragma once

#include <stop_token>

#include "core/mend/find/finding.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// An open end: of which path, and where.
struct OpenEndAt {
  std::size_t path = 0;
  Point place;
};

/// The drawing with a lonely end joined to another lonely one, however far: to the nearest
/// that can be reached without crossing a line, running along one, or crossing itself. Unchanged when none of the
/// nearest dozen can be, or it is no lonely end. Throws Cancelled.
Drawing joinedFar(const Drawing& drawing, const OpenEndAt& open, const MendSettings& settings,
                  const std::stop_token& stop = {});

}  // namespace rim::mend
