#pragma once

#include <vector>

#include "core/mend/find/aside.h"
#include "core/mend/find/local_faults.h"
#include "core/mend/find/stroke_pairs.h"

namespace rim::mend {

/// The faults of a drawing that hang on all of it: where a pen's ink failed, ends that nothing is near, the two edges
/// of strokes, what lies far outside and what only frames the others. `extents` are its outlines', `loose` the ends
/// that nothing is joined to, `pairs` those of strokePairs(). n log n of outlines.
std::vector<Finding> wholeFaults(const Drawing& drawing, const std::vector<Extent>& extents,
                                 const std::vector<LooseEnd>& loose, const std::vector<StrokePair>& pairs,
                                 const MendSettings& settings);

}  // namespace rim::mend
