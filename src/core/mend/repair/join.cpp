#include "core/mend/repair/join.h"

#include <algorithm>
#include <array>
#include <optional>

#include "core/error.h"
#include "core/mend/find/branches.h"
#include "core/mend/find/double_lines.h"
#include "core/mend/repair/meet.h"

namespace rim::mend {
namespace {

/// Which end each end is joined to: by path, start first.
using Partners = std::vector<std::array<std::optional<End>, 2>>;

std::size_t side(const End& end) { return end.atStart ? 0 : 1; }

/// Puts `next` behind `path`, both brought together where they meet.
void continueWith(Path& path, const Path& next, const MendSettings& settings) {
  const Piece before = pieceOf(path, path.segments.size() - 1);
  const Piece after = pieceOf(next, 0);
  const Joint j = joint(before, after, settings);
  path.segments.back() = j.before;
  path.segments.insert(path.segments.end(), j.between.begin(), j.between.end());
  path.segments.push_back(j.after);
  path.segments.insert(path.segments.end(), next.segments.begin() + 1, next.segments.end());
}

/// Makes one of neighbours that lie on one line or circle, from segment `from` on up to the one after `to`.
void fuse(Path& path, std::size_t from, std::size_t to, double touchMm) {
  for (std::size_t i = std::min(to, path.segments.size() - 2) + 1; i-- > from;) {
    const std::vector<Segment> one = asOne(pieceOf(path, i), pieceOf(path, i + 1), touchMm);
    if (one.empty()) continue;
    path.segments[i] = one.front();
    path.segments.erase(path.segments.begin() + static_cast<std::ptrdiff_t>(i) + 1);
  }
}

/// Closes an open path: its end is joined to its start.
void close(Path& path, const MendSettings& settings, bool fuses) {
  if (path.segments.size() == 1) {
    // One line or arc all the way round: it is halved, so that it has an end and a start that can move by themselves.
    const Piece whole = pieceOf(path, 0);
    path.segments = {partOf(whole.start, whole.segment, 0, 0.5), partOf(whole.start, whole.segment, 0.5, 1)};
    path.segments.back().end = whole.segment.end;
  }
  const Piece last = pieceOf(path, path.segments.size() - 1);
  const Piece first = pieceOf(path, 0);
  const Joint j = joint(last, first, settings);
  path.segments.back() = j.before;
  path.segments.insert(path.segments.end(), j.between.begin(), j.between.end());
  path.start = path.segments.back().end;
  path.segments.front() = j.after;
  path.closed = true;
  if (!fuses || path.segments.size() < 3) return;
  // The start lies wherever the first line began; on the middle of a line it is no node.
  const std::vector<Segment> one = asOne(pieceOf(path, path.segments.size() - 1), pieceOf(path, 0), settings.touchMm);
  if (one.empty()) return;
  path.segments.pop_back();
  path.start = path.segments.back().end;
  path.segments.front() = one.front();
}

/// Follows partners from an end on and builds the path that all of them make.
class Chainer {
 public:
  /// `fuses`: neighbours that lie on one line or circle become one.
  Chainer(const Drawing& drawing, const Partners& partners, const MendSettings& settings, bool fuses)
      : drawing_(drawing),
        partners_(partners),
        settings_(settings),
        fuses_(fuses),
        used_(drawing.outlines.size(), false) {}

  bool used(std::size_t path) const { return used_[path]; }
  /// How many paths the last outline was made of, and in how many places.
  std::size_t pieces() const { return pieces_; }
  std::size_t joints() const { return joints_; }

  /// The outline that a path is part of.
  Path from(std::size_t path) {
    End at = firstOf(path);
    const End begin = at;
    Path chain = oriented(at);
    pieces_ = joints_ = 0;
    while (true) {
      used_[at.path] = true;
      ++pieces_;
      const auto& next = partners_[at.path][at.atStart ? 1 : 0];
      if (!next) break;
      ++joints_;
      if (*next == begin) {
        close(chain, settings_, fuses_);
        break;
      }
      at = *next;
      const std::size_t last = chain.segments.size() - 1;
      const Path add = oriented(at);
      continueWith(chain, add, settings_);
      if (fuses_) fuse(chain, last, chain.segments.size() - add.segments.size(), settings_.touchMm);
    }
    return chain;
  }

 private:
  /// The end at which the chain begins: the free one, or, when it goes round, the path's own start.
  End firstOf(std::size_t path) const {
    End at{path, true, {}, {}};
    while (true) {
      const auto& before = partners_[at.path][side(at)];
      if (!before) return at;
      at = *before;
      at.atStart = !at.atStart;
      if (at.path == path && at.atStart) return at;
    }
  }

  /// The path as it is run when it is entered at this end.
  Path oriented(const End& entered) const {
    const Path& path = drawing_.path(entered.path);
    return entered.atStart ? path : reversed(path);
  }

  const Drawing& drawing_;
  const Partners& partners_;
  const MendSettings& settings_;
  bool fuses_;
  std::vector<bool> used_;
  std::size_t pieces_ = 0;
  std::size_t joints_ = 0;
};

Partners partnersOf(const std::vector<EndPair>& pairs, std::size_t paths) {
  Partners partners(paths);
  for (const EndPair& p : pairs) {
    partners[p.a.path][side(p.a)] = p.b;
    partners[p.b.path][side(p.b)] = p.a;
  }
  return partners;
}

Drawing joined(const Drawing& drawing, const std::vector<EndPair>& pairs, const MendSettings& settings) {
  const Partners partners = partnersOf(pairs, drawing.outlines.size());
  Drawing out = emptyLike(drawing);
  Chainer chainer(drawing, partners, settings, true);
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (chainer.used(p)) continue;
    const bool loose = !partners[p][0] && !partners[p][1];
    const Outline& outline = drawing.outlines[p];
    out.outlines.push_back(loose ? outline : outline.with(chainer.from(p)));
  }
  return out;
}

/// Whether ends meet at junctions of borders that part areas only: then nothing is open.
bool areAllAtJunctions(const Drawing& drawing, const std::vector<EndPair>& pairs, const MendSettings& settings) {
  const auto hasGap = [&settings](const EndPair& p) { return distance(p.a.place, p.b.place) > settings.coincidentMm; };
  if (std::any_of(pairs.begin(), pairs.end(), hasGap)) return false;
  const Paths paths = pathsOf(drawing);
  const PieceIndex index(paths);
  const Branches branches(paths, index, settings.coincidentMm);
  return std::all_of(pairs.begin(), pairs.end(), [&](const EndPair& p) { return branches.atJunction(p.a, p.b); });
}

}  // namespace

Repaired joinEnds(const Drawing& drawing, const MendSettings& settings) {
  const OpenEnds ends = pairEnds(drawing, settings);
  if (ends.pairs.empty() || areAllAtJunctions(drawing, ends.pairs, settings)) return {drawing, 0};
  return {joined(drawing, ends.pairs, settings), ends.pairs.size()};
}

namespace {

/// Which paths lie on another one in part: what they are pieces of shows only once that is mended.
std::vector<bool> drawnTwice(const Drawing& drawing, const PieceIndex& index, const MendSettings& settings) {
  std::vector<bool> twice(drawing.outlines.size(), false);
  try {
    for (const CoveredStretch& c : coveredStretches(drawing, index, settings)) {
      if (c.path != c.byPath) twice[c.path] = twice[c.byPath] = true;
    }
  } catch (const InputError&) {
    return std::vector<bool>(drawing.outlines.size(), true);  // too many to be looked at: all stays as it was read
  }
  return twice;
}

}  // namespace

PutTogether putTogether(const Drawing& drawing, const MendSettings& settings) {
  MendSettings exactly = settings;
  exactly.gapMm = settings.coincidentMm;
  std::vector<EndPair> pairs = pairEnds(drawing, exactly).pairs;
  if (pairs.empty()) return {drawing, {}};
  const Paths paths = pathsOf(drawing);
  const PieceIndex index(paths);
  const Branches branches(paths, index, settings.coincidentMm);
  const std::vector<bool> twice = drawnTwice(drawing, index, settings);
  std::erase_if(pairs, [&](const EndPair& p) {
    return twice[p.a.path] || twice[p.b.path] || !onOneLayer(drawing, p.a.path, p.b.path) ||
           distance(p.a.place, p.b.place) > settings.coincidentMm || branches.atJunction(p.a, p.b);
  });
  const Partners partners = partnersOf(pairs, drawing.outlines.size());
  PutTogether result{emptyLike(drawing), {}};
  Chainer chainer(drawing, partners, exactly, false);
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (chainer.used(p)) continue;
    const bool alone = !partners[p][0] && !partners[p][1];
    const Outline& outline = drawing.outlines[p];
    result.drawing.outlines.push_back(alone ? outline : outline.with(chainer.from(p)));
    if (!alone) result.joined.push_back({outline.id, chainer.pieces(), chainer.joints(), outline.path().start});
  }
  return result;
}

Drawing joinPairs(const Drawing& drawing, const std::vector<EndPair>& pairs, const MendSettings& settings) {
  return joined(drawing, pairs, settings);
}

Drawing joinPair(const Drawing& drawing, const EndPair& pair, const MendSettings& settings) {
  return joinPairs(drawing, {pair}, settings);
}

}  // namespace rim::mend
