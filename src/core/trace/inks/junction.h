#pragma once

#include <vector>

#include "core/geometry/path.h"
#include "core/geometry/path_place.h"
#include "core/trace/inks/meeting_lines.h"

namespace rim::trace::inks {

/// What is known of a place where borders meet.
struct BordersMeeting {
  Point seen;                        ///< where the pixels say it is, good to a px or so
  bool bent = false;                 ///< a way turns in it: lines prolonged say little
  std::vector<const Path*> through;  ///< ways that go on through it
  std::vector<MeetingLine> ends;     ///< ways that end there: their ends, and where they point to
};

/// The place with the least squared distances to the ways through it and to the lines of the ways that end there; on
/// the first way through it exactly. When they do not agree within 0.5 px and all but one do, without that one. Where
/// that is farther from what is seen than pixels explain (2.6 px, and more where borders meet at a small angle; less in
/// a bend), what is seen.
Point meetingPlace(const BordersMeeting& meeting);

/// The open path brought to the junctions at its ends. One that would have to turn by more than 0.3 px at its end keeps
/// its line, and a short straight one leads on: what is wrong near a junction then stays there.
Path broughtTo(const Path& path, Point start, Point end);

}  // namespace rim::trace::inks
