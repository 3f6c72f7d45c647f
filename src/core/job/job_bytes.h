#pragma once

#include <cstddef>
#include <vector>

#include "core/job/job.h"

namespace rim::job {

/// Something that jobs hold, several of them perhaps the same: `shared` tells which.
struct HeldBytes {
  const void* shared = nullptr;  ///< null: the job's alone
  std::size_t bytes = 0;
  bool result = false;  ///< worked out, and to be had again (withoutResults() lets it go)
};

/// What a job holds: pixels and greys, the document that a picture is a page of, label maps, outlines, brush strokes,
/// sweeps and what was decided. Colours of grey pictures, which are made when they are asked for, count as made.
std::vector<HeldBytes> heldBy(const Job& job);

}  // namespace rim::job
