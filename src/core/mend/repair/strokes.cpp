#include "core/mend/repair/strokes.h"

#include <algorithm>
#include <set>

#include "core/geometry/arc.h"
#include "core/geometry/curve_form.h"
#include "core/mend/find/stroke_pairs.h"
#include "core/mend/repair/branch_lines.h"
#include "core/mend/repair/meet.h"
#include "core/mend/repair/middle_lines.h"
#include "core/mend/repair/simplify.h"
#include "core/mend/repair/tidy.h"

namespace rim::mend {
namespace {

/// The segment moved to its left; none when an arc would shrink to nothing.
std::vector<Piece> moved(const Piece& piece, double mm, double leastMm) {
  const Point left = leftNormal(tangentAt(piece, 0)) * mm;
  const Point leftAtEnd = leftNormal(tangentAt(piece, 1)) * mm;
  if (!isArc(piece.segment)) return {{piece.start + left, Segment::line(piece.segment.end + leftAtEnd)}};
  const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
  const double radius = arc.radius + (arc.sweep > 0 ? -mm : mm);
  if (radius <= leastMm) return {};
  return {{piece.start + left, Segment::arc(piece.segment.end + leftAtEnd, piece.segment.bulge)}};
}

/// The path between the two edges of a stroke.
Path centreOf(const Path& outer, const Path& inner, double widthMm) {
  constexpr double kToleranceMm = 0.0025;
  const bool fromInner = inner.segments.size() <= outer.segments.size();
  // Rounded corners drawn as many short lines become arcs, which vanish when they shrink to a point.
  const Path edge = simplified(fromInner ? inner : outer, 2 * kToleranceMm);
  const bool counterClockwise = signedArea(edge) > 0;
  // Left of a counter-clockwise outline lies its inside.
  const double side = counterClockwise != fromInner ? 1 : -1;
  return movedSideways(edge, side * widthMm / 2, kToleranceMm);
}

}  // namespace

Path movedSideways(const Path& closed, double mm, double toleranceMm) {
  const Path path = inForm(closed, CurveForm::Arcs, toleranceMm);
  std::vector<Piece> pieces;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    for (const Piece& piece : moved(pieceOf(path, i), mm, std::max(toleranceMm, std::abs(mm) / 10)))
      pieces.push_back(piece);
  }
  if (pieces.empty()) return closed;
  MendSettings settings;
  settings.gapMm = 4 * std::abs(mm);  // how far corners may move; a right angle moves by 1.4
  settings.doubleMm = toleranceMm;
  Path out{pieces.front().start, {pieces.front().segment}, false};
  for (std::size_t i = 1; i <= pieces.size(); ++i) {
    const bool last = i == pieces.size();
    if (last && out.segments.size() < 2) break;
    const Piece before = pieceOf(out, out.segments.size() - 1);
    const Piece after = last ? pieceOf(out, 0) : pieces[i];
    const Joint j = joint(before, after, settings);
    out.segments.back() = j.before;
    out.segments.insert(out.segments.end(), j.between.begin(), j.between.end());
    if (!last) {
      out.segments.push_back(j.after);
    } else {
      out.start = out.segments.back().end;
      out.segments.front() = j.after;
    }
  }
  out.closed = true;
  if (!(out.segments.back().end == out.start)) out.segments.push_back(Segment::line(out.start));
  return out;
}

namespace {

/// What stays of a pair that nothing hangs on.
Path lineOf(const Path& outer, const Path& inner, double widthMm, DoubleRule rule) {
  if (rule == DoubleRule::Inner) return inner;
  return rule == DoubleRule::Centre ? centreOf(outer, inner, widthMm) : outer;
}

StrokeLines toLines(const Drawing& drawing, const std::vector<StrokePair>& pairs, DoubleRule rule,
                    const std::stop_token& stop = {}) {
  StrokeLines lines{drawing, pairs.size(), 0};
  std::vector<std::size_t> gone;
  std::vector<Outline> hanging;
  for (const StrokePair& pair : pairs) {
    const Path& outer = drawing.path(pair.outer);
    const Path& inner = drawing.path(pair.inner);
    Path stays = lineOf(outer, inner, pair.widthMm, rule);
    if (!pair.unlike.empty()) {
      const Path middle = centreOf(outer, inner, pair.widthMm);
      const std::vector<trace::lines::Centreline> branches = branchesOf(outer, inner, middle, pair.widthMm, stop);
      for (const trace::lines::Centreline& branch : branches) {
        if (rule == DoubleRule::Outer)
          stays = withoutBranch(stays, middle, pair.widthMm, branch.path.segments.back().end);
      }
      for (const trace::lines::Centreline& branch : branches) {
        constexpr double kReach = 3;
        hanging.push_back(
            lines.drawing.outlines[pair.outer].offspring(ledBackTo(stays, branch.path, kReach * pair.widthMm)));
        hanging.back().stroke = branch.width;
      }
    }
    gone.push_back(rule == DoubleRule::Inner ? pair.outer : pair.inner);
    lines.drawing.setPath(rule == DoubleRule::Inner ? pair.inner : pair.outer, std::move(stays));
  }
  lines.branches = hanging.size();
  lines.drawing = withoutPaths(lines.drawing, gone);
  for (Outline& line : hanging) lines.drawing.outlines.push_back(std::move(line));
  return lines;
}

}  // namespace

StrokeLines strokesToLines(const Drawing& drawing, const MendSettings& settings) {
  return toLines(drawing, strokePairs(drawing, settings.strokeWidthMm), settings.doubles);
}

StrokeLines allStrokesToLines(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  std::vector<StrokePair> pairs = strokePairs(drawing, settings.strokeWidthMm);
  if (settings.doubles != DoubleRule::Centre) return toLines(drawing, pairs, settings.doubles, stop);
  std::set<OutlineId> ofPairs;
  for (const StrokePair& pair : pairs) ofPairs.insert(drawing.outlines[pair.outer].id);
  // First, while both edges of a pair still say what lies in its hole and is ink again.
  const Repaired middles = strokesToMiddles(drawing, settings.strokeWidthMm, ofPairs, stop);
  const OutlinePlaces places = placesOf(middles.drawing);
  for (StrokePair& pair : pairs) {
    pair.outer = places.at(drawing.outlines[pair.outer].id);
    pair.inner = places.at(drawing.outlines[pair.inner].id);
  }
  StrokeLines lines = toLines(middles.drawing, pairs, settings.doubles, stop);
  lines.count += middles.count;
  return lines;
}

Drawing strokeToLine(const Drawing& drawing, std::size_t outer, std::size_t inner, const MendSettings& settings) {
  std::vector<StrokePair> pairs = strokePairs(drawing, settings.strokeWidthMm);
  std::erase_if(pairs, [&](const StrokePair& p) { return p.outer != outer || p.inner != inner; });
  return toLines(drawing, pairs, settings.doubles).drawing;
}

}  // namespace rim::mend
