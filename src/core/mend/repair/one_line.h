#pragma once

#include <stop_token>

#include "core/mend/repair/join.h"

namespace rim::mend {

/// Makes one line of what is drawn twice: a closed outline that lies on another closed one all the way round goes;
/// stretches of open paths that lie on another path are cut out, and what is left of them ends where that path does.
/// Where a closed outline runs to a hole and back on one line, the line goes, and outline and hole part.
/// Closed outlines that share only a part of their border keep it, each its own, or one of them gives it up, as
/// `borders` says. Throws Cancelled.
Repaired oneLineFromTwo(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

/// The same for two paths alone.
Repaired oneLineFromTwo(const Drawing& drawing, std::size_t path, std::size_t other, const MendSettings& settings);

}  // namespace rim::mend
