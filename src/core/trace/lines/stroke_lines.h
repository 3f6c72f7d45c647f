#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/trace/lines/stroke_track.h"

namespace rim::trace::lines {

/// An end of a line that meets no other.
struct FreeEnd {
  Continuation on;      ///< how it would run on from the pen's middle
  Point inkTip;         ///< where the ink ends
  double width = 0;     ///< of the stroke there, px
  bool atArea = false;  ///< it runs into what is too wide for a stroke
};

/// What the pen drew in one stroke: points along its middle, from where it stopped first to where it stopped last.
struct StrokeLine {
  std::vector<Point> points;
  bool closed = false;
  std::vector<double> widths;  ///< px, at places along it
  std::array<std::optional<FreeEnd>, 2> freeEnds;
};

/// All strokes of one island of ink, and where they meet.
struct StrokeNet {
  MedialAxis axis;
  StrokeGraph graph;
  std::vector<StrokeTrack> tracks;  ///< of each chain; empty as long as they are not worked out
  std::optional<StrokeLine> dot;    ///< instead, when the ink is hardly longer than wide
  bool dotIsArea = false;           ///< the dot keeps its border
  bool dotIsSwitched = false;       ///< somebody said so, against its width
};

/// The net without its tracks. `rings` are the island (counter-clockwise) and its holes (clockwise), upright px. A dot
/// is a line as long as its ink is longer than wide, kShortestLinePx at least.
StrokeNet strokeNet(const std::vector<const contour::Border*>& rings);

inline constexpr double kShortestLinePx = 0.2;

/// The same net with its tracks, its chains cut before where they run into what is wider than `limitPx`
/// (splitByWidth()); infinite: nowhere. Tracks that are wider along most of them are areas.
StrokeNet withTracks(StrokeNet net, double limitPx);

/// The lines of a net with tracks. Areas are left out; where a line runs into one, it ends (FreeEnd::atArea). What the
/// edges of a pen's strokes show (pen_lines.h), of one pen that drew all of the net or of the drawing's, is taken when
/// the ink's border follows from it better. `penPx`: how wide the pen of the drawing was; none: it is not known.
std::vector<StrokeLine> linesOf(StrokeNet net, std::optional<double> penPx = std::nullopt);

}  // namespace rim::trace::lines
