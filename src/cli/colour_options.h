#pragma once

#include <string>
#include <vector>

#include "cli/options.h"
#include "core/job/job.h"

namespace rim::cli {

/// What the command line says about a picture of several inks.
struct ColourOptions {
  std::string colours;  ///< empty: two tones; auto or a number
  trace::InkLayout layout = trace::InkLayout::CutOut;
  std::vector<std::string> keep;
  std::string background = "auto";
  std::vector<std::string> merge;  ///< pairs "A,B"
};

void addColours(Command& command, ColourOptions& options);

/// The job with these settings; colours are looked up among the inks that are found in the prepared picture.
/// Throws InputError when a colour is none of them.
job::Job withColours(job::Job job, const ColourOptions& options);

}  // namespace rim::cli
