#include "core/mend/decide.h"

#include <algorithm>
#include <map>
#include <optional>

#include "core/mend/find/inspect.h"
#include "core/mend/find/piece_index.h"
#include "core/mend/find/small_faults.h"
#include "core/mend/repair/far_join.h"
#include "core/mend/repair/mend.h"
#include "core/mend/repair/one_line.h"
#include "core/mend/repair/strokes.h"
#include "core/mend/repair/tidy.h"
#include "core/mend/repair/untangle.h"

namespace rim {
namespace {

constexpr double kSamePlaceMm = 1;

DoubleRule strokeRule(const std::string& repair) {
  return repair == "inner" ? DoubleRule::Inner : repair == "centre" ? DoubleRule::Centre : DoubleRule::Outer;
}

MendSettings withBorders(MendSettings settings, const std::string& repair) {
  settings.borders = repair == "once" ? BorderRule::Once : BorderRule::Twice;
  return settings;
}

BowTieRule bowTieRule(const std::string& repair) {
  return repair == "untangle" ? BowTieRule::Untangle : BowTieRule::Split;
}

Drawing withJoined(const Drawing& drawing, const Finding& finding, MendSettings settings) {
  for (const EndPair& p : pairEnds(drawing, settings).pairs) {
    const bool same = p.a.path == finding.outline && p.b.path == finding.other;
    if (!same || !(lerp(p.a.place, p.b.place, 0.5) == finding.at)) continue;
    settings.gapMm = std::max(settings.gapMm, p.gapMm);
    return joinPair(drawing, p, settings);
  }
  return drawing;
}

/// The segment at fault at the finding's place.
std::optional<std::size_t> segmentAt(const std::vector<SegmentFault>& faults, const Finding& finding) {
  const auto found = std::find_if(faults.begin(), faults.end(), [&finding](const SegmentFault& f) {
    return f.path == finding.outline && f.at == finding.at;
  });
  return found == faults.end() ? std::nullopt : std::optional(found->segment);
}

Drawing withPath(Drawing drawing, std::size_t path, Path changed) {
  drawing.paths[path] = std::move(changed);
  return drawing;
}

/// What runs out and back there is cut off, or ("one") becomes a line that is drawn once.
Drawing withoutSpikeAt(const Drawing& drawing, const Finding& finding, const std::string& repair,
                       const MendSettings& settings) {
  const Path& path = drawing.paths[finding.outline];
  Finding alone = finding;
  alone.outline = 0;
  const auto segment = segmentAt(spikes({path}, settings.doubleMm), alone);
  if (!segment) return drawing;
  const Piece out = pieceOf(path, *segment);
  const Piece back = pieceOf(path, (*segment + 1) % path.segments.size());
  Drawing changed = withPath(drawing, finding.outline, withoutSpike(path, *segment));
  if (repair == "one") addLike(changed, lineOfSpike(out, back), drawing, finding.outline);
  return changed;
}

std::optional<Finding> nearest(const std::vector<Finding>& findings, FindingKind kind, Point at) {
  std::optional<Finding> best;
  double least = kSamePlaceMm;
  for (const Finding& f : findings) {
    const double off = distance(f.at, at);
    if (f.kind != kind || off > least) continue;
    least = off;
    best = f;
  }
  return best;
}

}  // namespace

std::vector<std::string> repairsFor(const Finding& finding) {
  switch (finding.kind) {
    case FindingKind::Unjoined:
      return {"join"};
    case FindingKind::OpenEnd:
      return finding.repair.empty() ? std::vector<std::string>{"nearest", "drop"} : std::vector<std::string>{"join"};
    case FindingKind::DoubleLine:
      return finding.repair.empty() ? std::vector<std::string>{"once", "twice"} : std::vector<std::string>{"one"};
    case FindingKind::StrokePair:
      return {"outer", "inner", "centre"};
    case FindingKind::SelfCrossing:
      return {"split", "untangle"};
    case FindingKind::Loop:
      return {"cut off"};
    case FindingKind::Spike:
      return finding.repair == "one" ? std::vector<std::string>{"one", "cut off"} : std::vector<std::string>{"cut off"};
    case FindingKind::CoincidentNode:
      return {"merge"};
    case FindingKind::Crossing:
      return {};
    case FindingKind::ZeroLength:
    case FindingKind::Speck:
    case FindingKind::Stray:
    case FindingKind::Frame:
      return {"drop"};
  }
  return {};
}

Drawing repaired(const Drawing& drawing, const Finding& finding, const std::string& repair,
                 const MendSettings& settings, const std::stop_token& stop) {
  const std::size_t path = finding.outline;
  if (path >= drawing.paths.size()) return drawing;
  if (repair == "drop") return withoutPaths(drawing, {path});
  if (repair == "join") return withJoined(drawing, finding, settings);
  if (repair == "nearest") return joinedFar(drawing, finding, settings, stop);
  if (finding.kind == FindingKind::Spike) return withoutSpikeAt(drawing, finding, repair, settings);
  if (repair == "one" || repair == "once") {
    return oneLineFromTwo(drawing, path, finding.other, withBorders(settings, repair)).drawing;
  }
  if (finding.kind == FindingKind::StrokePair) {
    MendSettings one = settings;
    one.doubles = strokeRule(repair);
    one.strokeWidthMm = settings.strokeMm;
    return strokeToLine(drawing, path, finding.other, one);
  }
  if (finding.kind == FindingKind::SelfCrossing || finding.kind == FindingKind::Loop) {
    return untangledAt(drawing, path, finding.at, settings, bowTieRule(repair));
  }
  if (finding.kind == FindingKind::CoincidentNode) {
    const auto segment = segmentAt(coincidentNodes(drawing.paths, settings.coincidentMm), finding);
    if (segment) return withPath(drawing, path, withoutSegment(drawing.paths[path], *segment));
  }
  return drawing;
}

Drawing repairedAll(const Drawing& drawing, FindingKind kind, const std::string& repair, const MendSettings& settings,
                    const std::stop_token& stop) {
  MendSettings own = settings;
  switch (kind) {
    case FindingKind::OpenEnd:
      if (repair == "join") return joinEnds(drawing, settings).drawing;
      break;
    case FindingKind::DoubleLine:
      if (repair == "twice") return drawing;
      return oneLineFromTwo(drawing, withBorders(settings, repair), stop).drawing;
    case FindingKind::StrokePair:
      own.doubles = strokeRule(repair);
      own.strokeWidthMm = settings.strokeMm;
      return strokesToLines(drawing, own).drawing;
    case FindingKind::SelfCrossing:
      own.loopMm = 0;
      return untangled(drawing, own, bowTieRule(repair), stop).drawing;
    case FindingKind::Loop:
      return untangled(drawing, settings, BowTieRule::Leave, stop).drawing;
    case FindingKind::CoincidentNode:
      return withoutCoincidentNodes(drawing, settings).drawing;
    case FindingKind::Spike:
      if (repair == "one") return withoutSpikes(drawing, settings, settings.gapMm, LongSpikes::BecomeLines).drawing;
      return withoutSpikes(drawing, settings).drawing;
    default:
      break;
  }
  if (repair != "drop") return drawing;
  std::vector<std::size_t> gone;
  for (const Finding& f : inspect(drawing, settings, stop)) {
    const bool same = f.kind == kind && (kind != FindingKind::OpenEnd || f.repair.empty());
    if (same) gone.push_back(f.outline);
  }
  return withoutPaths(drawing, gone);
}

Drawing repairedSafely(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  MendSettings safe = settings;
  safe.gapMm = std::min(settings.gapMm, settings.invisibleMm);
  safe.loopMm = std::min(settings.loopMm, settings.invisibleMm);
  safe.doubles = DoubleRule::One;
  safe.borders = BorderRule::Twice;
  const Drawing out = mendedInRounds(drawing, safe, settings.invisibleMm, stop).drawing;
  std::vector<std::size_t> gone = closedBelow(out.paths, settings.invisibleMm);
  for (const std::size_t scrap : scraps(out.paths, pairEnds(out, safe), safe, PieceIndex(out.paths)))
    gone.push_back(scrap);
  return withoutPaths(out, gone);
}

Drawing repairedAsProposed(const Drawing& drawing, const MendSettings& settings, const std::vector<MendStep>& steps,
                           double mmPerUnit, const std::stop_token& stop) {
  const Drawing out = mended(drawing, settings, stop).drawing;
  std::vector<std::size_t> gone;
  for (const Finding& f : withoutLeft(inspect(out, settings, stop), steps, mmPerUnit)) {
    if (f.repair == "drop") gone.push_back(f.outline);
  }
  return withoutPaths(out, gone);
}

Drawing decided(const Drawing& drawing, const MendWork& work, double mmPerUnit, const std::stop_token& stop) {
  Drawing out = drawing;
  for (const MendStep& step : work.steps) {
    if (step.what == MendStep::What::Safe) out = repairedSafely(out, work.settings, stop);
    if (step.what == MendStep::What::Kind) out = repairedAll(out, step.kind, step.repair, work.settings, stop);
    if (step.what == MendStep::What::Proposals)
      out = repairedAsProposed(out, work.settings, work.steps, mmPerUnit, stop);
    if (step.what != MendStep::What::One) continue;
    const auto finding = nearest(inspect(out, work.settings, stop), step.kind, step.at * mmPerUnit);
    if (finding) out = repaired(out, *finding, step.repair, work.settings, stop);
  }
  return oriented(out);
}

std::vector<Finding> withoutLeft(std::vector<Finding> findings, const std::vector<MendStep>& steps, double mmPerUnit) {
  for (const MendStep& step : steps) {
    const bool borders = step.kind == FindingKind::DoubleLine && step.repair == "twice";
    if (borders && step.what == MendStep::What::Kind) {
      std::erase_if(findings, [](const Finding& f) { return f.kind == FindingKind::DoubleLine && f.repair.empty(); });
    }
    if (step.what != MendStep::What::Leave && !(borders && step.what == MendStep::What::One)) continue;
    const auto left = nearest(findings, step.kind, step.at * mmPerUnit);
    if (!left) continue;
    const auto at = std::find_if(findings.begin(), findings.end(), [&left](const Finding& f) {
      return f.kind == left->kind && f.at == left->at && f.outline == left->outline;
    });
    findings.erase(at);
  }
  return findings;
}

}  // namespace rim
