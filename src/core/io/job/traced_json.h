#pragma once

#include "core/job/job.h"

namespace rim::io {

/// What tracing a job's picture gave, as JSON without loss (io/job/drawing_json.h, in upright px), with the key of what
/// it was made of: the packed picture, its preparation, the colours and the trace settings. Needs the tracing; packs
/// the picture when that was not done yet.
PackedBytes::Bytes tracedPart(const job::Job& job);

/// Gives a job that was read what tracing it gave when it was saved, so that nothing is traced again. False, and the
/// job as it was, when that was made of something else or cannot be read: then it is traced anew.
bool takeTraced(PackedBytes::Bytes part, job::Job& job);

}  // namespace rim::io
