#pragma once

#include <filesystem>
#include <stop_token>

#include "core/job/job.h"

namespace rim::io {

/// The ending of job files.
inline constexpr const char* kJobEnding = ".snugrim";

/// Whether a file looks like a job by its first bytes (a zip). False when it cannot be read.
bool isJobFile(const std::filesystem::path& file);

/// Writes a job as a zip of open formats: `picture.png` as it was opened, or `drawing.json` with a drawing that was
/// read (io/job/drawing_json.h, without loss), `job.json` with preparation, settings, size and note of origin, and,
/// when they are there, `references.json` with the outlines of reference copies, `traced.json` with what tracing gave
/// (io/job/traced_json.h), and `outlines.svg` in mm for other programs. Written beside and renamed. Throws WriteError;
/// InputError when the job has no picture.
void saveJob(const job::Job& job, const std::filesystem::path& file);

/// The job that was saved, its picture not yet prepared; what tracing gave is there where it was kept and belongs
/// (hasTracing() in job/stages.h), else it is still to be traced. Throws InputError with one sentence when the file is
/// no job, is damaged, or was written by a newer version; Cancelled when a stop is requested.
job::Job loadJob(const std::filesystem::path& file, const std::stop_token& stop = {});

}  // namespace rim::io
