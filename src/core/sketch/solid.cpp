#include "core/sketch/solid.h"

#include <algorithm>
#include <map>

#include "core/geometry/flatten.h"
#include "core/sketch/caps.h"

namespace rim::sketch {
namespace {

void addBody(Solid& solid, const Cap& cap, double thicknessMm) {
  const auto first = static_cast<std::uint32_t>(solid.points.size());
  const auto count = static_cast<std::uint32_t>(cap.points.size());
  for (const double z : {0.0, thicknessMm}) {
    for (const Point p : cap.points) solid.points.push_back({p.x, p.y, z});
  }
  const auto low = [&](std::uint32_t i) { return first + i; };
  const auto high = [&](std::uint32_t i) { return first + count + i; };
  for (const auto& [a, b, c] : cap.triangles) {
    solid.triangles.push_back({high(a), high(b), high(c)});
    solid.triangles.push_back({low(c), low(b), low(a)});
  }
  for (const auto& [a, b] : cap.rim) {
    solid.triangles.push_back({low(a), low(b), high(b)});
    solid.triangles.push_back({low(a), high(b), high(a)});
  }
}

}  // namespace

Solid extruded(const Drawing& drawing, const Sketch& sketch, double thicknessMm, double chordMm) {
  Solid solid;
  for (const Profile& profile : sketch.profiles) {
    std::vector<std::vector<Point>> rings{flatten(drawing.path(profile.outer), chordMm)};
    for (const std::size_t hole : profile.holes) rings.push_back(flatten(drawing.path(hole), chordMm));
    addBody(solid, capOf(rings), thicknessMm);
  }
  return solid;
}

double volumeOf(const Solid& solid) {
  double sixfold = 0;
  for (const auto& [i, j, k] : solid.triangles) {
    const Point3 a = solid.points[i];
    const Point3 b = solid.points[j];
    const Point3 c = solid.points[k];
    sixfold += a.x * (b.y * c.z - b.z * c.y) + a.y * (b.z * c.x - b.x * c.z) + a.z * (b.x * c.y - b.y * c.x);
  }
  return sixfold / 6;
}

bool isWatertight(const Solid& solid) {
  std::map<std::pair<std::uint32_t, std::uint32_t>, int> runs;
  for (const auto& t : solid.triangles) {
    for (std::size_t i = 0; i < 3; ++i) {
      const std::uint32_t a = t[i];
      const std::uint32_t b = t[(i + 1) % 3];
      runs[{std::min(a, b), std::max(a, b)}] += a < b ? 1 : -1;
    }
  }
  return std::all_of(runs.begin(), runs.end(), [](const auto& run) { return run.second == 0; });
}

}  // namespace rim::sketch
