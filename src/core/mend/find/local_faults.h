#pragma once

#include <stop_token>
#include <vector>

#include "core/mend/find/finding.h"
#include "core/mend/find/open_ends.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// A finding, and where the outlines that it is about stand in the drawing.
struct LocalFault {
  Finding finding;
  std::size_t outline = 0;
  std::size_t other = 0;
};

/// An end that nothing is to be joined to.
struct LooseEnd {
  End end;
  bool isFault = true;  ///< false: it lies on another line, or is the end of a pen's stroke or of a scrap
};

/// What can be told of outlines from themselves and from what lies near them.
struct LocalFaults {
  std::vector<LocalFault> faults;
  std::vector<LooseEnd> loose;
};

/// The faults of a drawing that hang on no outline farther off: ends to join, scraps, doubles, crossings, loops, specks
/// and nodes or spikes of no use. Each hangs on its outlines, on what touches these and on what touches that, and, of
/// ends, on the lines that are joined with theirs (mend/find/neighbours.h). n log n for lines spread out. Throws
/// Cancelled.
LocalFaults localFaults(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

/// Of these only what would be cut twice or crosses. Throws Cancelled.
std::vector<LocalFault> trackFaults(const Drawing& drawing, const MendSettings& settings,
                                    const std::stop_token& stop = {});

}  // namespace rim::mend
