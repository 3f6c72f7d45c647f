#include "core/refine/edit/knife.h"

#include <algorithm>
#include <map>
#include <optional>
#include <set>

#include "core/drawing/nested.h"
#include "core/geometry/intersect.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"

namespace rim::refine {
namespace {

/// A straight cut. It passes a little beside where it was drawn, so that it goes through no node and along no side;
/// what it meets within `near` of a node counts as the node.
struct Blade {
  Piece piece;
  double near = 0;
};

Blade bladeOf(Point from, Point to) {
  constexpr double kNearShare = 1e-6;
  constexpr double kBesideShare = 0.3117;  // of `near`: no ratio that drawings are made with
  const double near = kNearShare * distance(from, to);
  const Point along = unit(to - from) * near;
  const Point beside = leftNormal(along) * kBesideShare;
  return {{from - along + beside, Segment::line(to + along + beside)}, near};
}

/// Where the blade crosses an outline.
struct Passage {
  std::size_t ring = 0;
  PathPlace place;
  double along = 0;   ///< of the blade, 0..1
  bool into = false;  ///< whether it comes into what lies at the ring's left
};

/// The place, or the node that it lies at.
PathPlace atNode(const Path& path, PathPlace place, double near) {
  const Point start = segmentStart(path, place.segment);
  const Point end = path.segments[place.segment].end;
  if (distance(place.place, start) <= near) return {place.segment, 0, start, 0};
  if (distance(place.place, end) <= near) return {place.segment, 1, end, 0};
  return place;
}

std::vector<Passage> passagesOf(const Path& path, std::size_t ring, const Blade& blade) {
  std::vector<Passage> passages;
  const Box box = boxOf(blade.piece);
  if (path.segments.empty() || apart(boxOf(path), box, 0)) return passages;
  const Point way = blade.piece.segment.end - blade.piece.start;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    if (apart(boxOf(piece), box, 0)) continue;
    for (const Meeting& meeting : meetings(piece, blade.piece)) {
      const bool into = dot(way, leftNormal(tangentAt(piece, meeting.t))) > 0;
      passages.push_back({ring, atNode(path, {i, meeting.t, meeting.place, 0}, blade.near), meeting.u, into});
    }
  }
  return passages;
}

/// An area with its holes: rings that have it at their left.
struct Area {
  std::vector<Path> rings;
  std::vector<std::size_t> outlines;  ///< the rings' places in the drawing
};

Area areaWith(const Drawing& drawing, const std::vector<std::size_t>& outlines) {
  Area area{{}, outlines};
  for (const std::size_t place : outlines) {
    const Path& path = drawing.path(place);
    const bool hole = place != outlines.front();
    area.rings.push_back((signedArea(path) < 0) == hole ? path : reversed(path));
  }
  return area;
}

/// A side of the cut that runs through an area, from one passage to the next.
struct Chord {
  std::size_t from = 0;
  std::size_t to = 0;
};

std::vector<Chord> chordsOf(const std::vector<Passage>& passages) {
  std::vector<Chord> chords;
  for (std::size_t i = 0; i + 1 < passages.size(); ++i) {
    const bool across = passages[i].into && !passages[i + 1].into;
    // Where it only touches a corner nothing is cut.
    if (across && passages[i].place.place != passages[i + 1].place.place) chords.push_back({i, i + 1});
  }
  return chords;
}

/// The borders of an area that was cut: along a ring up to the next chord, over it, and on along the ring there.
class Borders {
 public:
  Borders(const Area& area, const std::vector<Passage>& passages, const std::vector<Chord>& chords)
      : area_(area), passages_(passages) {
    for (std::size_t c = 0; c < chords.size(); ++c) {
      over_[chords[c].from] = {chords[c].to, c};
      over_[chords[c].to] = {chords[c].from, c};
    }
    for (const auto& [passage, other] : over_) order_[passages[passage].ring].push_back(passage);
    for (auto& [ring, cuts] : order_) {
      std::stable_sort(cuts.begin(), cuts.end(),
                       [&](std::size_t a, std::size_t b) { return isBefore(passages[a].place, passages[b].place); });
    }
  }

  struct Border {
    Path path;
    std::size_t ring = 0;                  ///< that it began on
    std::map<std::size_t, int> timesOver;  ///< chord -> how often it runs over it
  };

  std::vector<Border> all() const {
    std::vector<Border> borders;
    std::set<std::size_t> gone;
    for (const auto& [passage, other] : over_) {
      if (gone.count(passage) == 0) borders.push_back(from(passage, gone));
    }
    return borders;
  }

 private:
  std::size_t nextOnRing(std::size_t passage) const {
    const std::vector<std::size_t>& cuts = order_.at(passages_[passage].ring);
    const auto here = std::find(cuts.begin(), cuts.end(), passage);
    return std::next(here) == cuts.end() ? cuts.front() : *std::next(here);
  }

  Border from(std::size_t passage, std::set<std::size_t>& gone) const {
    Border border{{passages_[passage].place.place, {}, true}, passages_[passage].ring, {}};
    for (std::size_t at = passage; gone.insert(at).second;) {
      const std::size_t next = nextOnRing(at);
      const PathPlace& a = passages_[at].place;
      const PathPlace& b = passages_[next].place;
      // What is left of a corner that the cut goes through has no length.
      if (at == next || a.place != b.place) append(border.path, stretchOf(area_.rings[passages_[at].ring], a, b));
      const auto [opposite, chord] = over_.at(next);
      ++border.timesOver[chord];
      border.path.segments.push_back(Segment::line(passages_[opposite].place.place));
      at = opposite;
    }
    border.path.segments.back().end = border.path.start;
    return border;
  }

  const Area& area_;
  const std::vector<Passage>& passages_;
  std::map<std::size_t, std::pair<std::size_t, std::size_t>> over_;  // passage -> the chord's other end, the chord
  std::map<std::size_t, std::vector<std::size_t>> order_;            // ring -> its passages with chords, in order
};

/// The chord that a border runs over both ways, which would only slit it.
std::optional<std::size_t> slitIn(const std::vector<Borders::Border>& borders) {
  for (const Borders::Border& border : borders) {
    for (const auto& [chord, times] : border.timesOver) {
      if (times > 1) return chord;
    }
  }
  return std::nullopt;
}

bool hasNoArea(const Borders::Border& border) {
  constexpr double kShare = 1e-12;  // of its box
  const Box box = boxOf(border.path);
  return std::abs(signedArea(border.path)) <= kShare * box.width() * box.height();
}

void cutArea(const Area& area, const Blade& blade, std::vector<CutUp>& cuts) {
  std::vector<Passage> passages;
  for (std::size_t ring = 0; ring < area.rings.size(); ++ring) {
    for (const Passage& passage : passagesOf(area.rings[ring], ring, blade)) passages.push_back(passage);
  }
  std::sort(passages.begin(), passages.end(), [](const Passage& a, const Passage& b) { return a.along < b.along; });
  std::vector<Chord> chords = chordsOf(passages);
  std::vector<Borders::Border> borders = Borders(area, passages, chords).all();
  while (const auto slit = slitIn(borders)) {
    chords.erase(chords.begin() + static_cast<std::ptrdiff_t>(*slit));
    borders = Borders(area, passages, chords).all();
  }
  // A cut along a side leaves the area as it was, and nothing beside it.
  borders.erase(std::remove_if(borders.begin(), borders.end(), hasNoArea), borders.end());
  if (borders.size() < 2) return;
  std::map<std::size_t, CutUp> became;
  for (const Chord& chord : chords) {
    for (const std::size_t end : {chord.from, chord.to}) {
      const std::size_t outline = area.outlines[passages[end].ring];
      became[outline].outline = outline;
    }
  }
  for (Borders::Border& border : borders) became[area.outlines[border.ring]].parts.push_back(std::move(border.path));
  for (auto& [outline, cut] : became) cuts.push_back(std::move(cut));
}

void cutLine(const Path& path, std::size_t outline, const Blade& blade, std::vector<CutUp>& cuts) {
  std::vector<Passage> passages = passagesOf(path, outline, blade);
  std::sort(passages.begin(), passages.end(),
            [](const Passage& a, const Passage& b) { return isBefore(a.place, b.place); });
  PathPlace from = startPlace(path);
  const PathPlace end = endPlace(path);
  CutUp cut{outline, {}};
  for (const Passage& passage : passages) {
    if (passage.place.place == from.place || passage.place.place == end.place) continue;
    cut.parts.push_back(stretchOf(path, from, passage.place));
    from = passage.place;
  }
  if (cut.parts.empty()) return;
  cut.parts.push_back(stretchOf(path, from, end));
  cuts.push_back(std::move(cut));
}

}  // namespace

std::vector<CutUp> cutAlong(const Drawing& drawing, Point from, Point to) {
  const Blade blade = bladeOf(from, to);
  std::vector<CutUp> cuts;
  for (const std::vector<std::size_t>& area : areasOf(drawing)) cutArea(areaWith(drawing, area), blade, cuts);
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const Path& path = drawing.path(i);
    if (!path.closed && !path.segments.empty()) cutLine(path, i, blade, cuts);
  }
  return cuts;
}

}  // namespace rim::refine
