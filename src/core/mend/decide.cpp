#include "core/mend/decide.h"

#include <algorithm>
#include <optional>
#include <set>

#include "core/mend/find/inspect.h"
#include "core/mend/find/piece_index.h"
#include "core/mend/find/small_faults.h"
#include "core/mend/repair/bridge.h"
#include "core/mend/repair/far_join.h"
#include "core/mend/repair/mend.h"
#include "core/mend/repair/one_line.h"
#include "core/mend/repair/strokes.h"
#include "core/mend/repair/tidy.h"
#include "core/mend/repair/untangle.h"

namespace rim::mend {
namespace {

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

/// What a finding of a drawing is about: where its outlines stand in the list.
struct Spot {
  Point at;
  std::size_t path = 0;
  std::size_t other = 0;
};

Drawing withJoined(const Drawing& drawing, const Spot& spot, MendSettings settings) {
  const std::vector<EndPair> pairs = pairEnds(drawing, settings).pairs;
  const EndPair* nearest = nullptr;
  const auto off = [&spot](const EndPair& p) { return distance(lerp(p.a.place, p.b.place, 0.5), spot.at); };
  for (const EndPair& p : pairs) {
    const bool same = p.a.path == spot.path && p.b.path == spot.other;
    if (same && (nearest == nullptr || off(p) < off(*nearest))) nearest = &p;
  }
  if (nearest == nullptr) return drawing;
  settings.gapMm = std::max(settings.gapMm, nearest->gapMm);
  return joinPair(drawing, *nearest, settings);
}

/// The segment at fault that is nearest to a place of the path.
std::optional<std::size_t> segmentAt(const std::vector<SegmentFault>& faults, Point at) {
  const auto found = std::min_element(faults.begin(), faults.end(), [at](const SegmentFault& a, const SegmentFault& b) {
    return distance(a.at, at) < distance(b.at, at);
  });
  return found == faults.end() ? std::nullopt : std::optional(found->segment);
}

/// What runs out and back there is cut off, or ("one") becomes a line that is drawn once.
Drawing withoutSpikeAt(const Drawing& drawing, const Spot& spot, const std::string& repair,
                       const MendSettings& settings) {
  const Path& path = drawing.path(spot.path);
  const auto segment = segmentAt(spikes(Paths(path), settings.doubleMm), spot.at);
  if (!segment) return drawing;
  const Piece out = pieceOf(path, *segment);
  const Piece back = pieceOf(path, (*segment + 1) % path.segments.size());
  Drawing changed = drawing;
  changed.setPath(spot.path, withoutSpike(path, *segment));
  if (repair != "one") return changed;
  Outline line = changed.outlines[spot.path].offspring(lineOfSpike(out, back));
  changed.outlines.push_back(std::move(line));
  return changed;
}

Drawing withOneNodeAt(const Drawing& drawing, const Spot& spot, const MendSettings& settings) {
  const Path& path = drawing.path(spot.path);
  const auto segment = segmentAt(coincidentNodes(Paths(path), settings.coincidentMm), spot.at);
  if (!segment) return drawing;
  Drawing changed = drawing;
  changed.setPath(spot.path, withoutSegment(path, *segment));
  return changed;
}

Drawing withoutStrokeAt(const Drawing& drawing, const Spot& spot, const std::string& repair, MendSettings settings) {
  settings.doubles = strokeRule(repair);
  settings.strokeWidthMm = settings.strokeMm;
  return strokeToLine(drawing, spot.path, spot.other, settings);
}

/// Whether a decision bears on what taking all proposals leaves alone, whenever it is made.
bool leavesSomething(const MendStep& step) { return step.what == MendStep::What::Leave || step.repair == "twice"; }

/// Whether the decisions are the first of those that are wanted, on the same drawing.
bool goesOn(const Decisions& before, const std::shared_ptr<const Drawing>& start, const MendWork& work,
            double mmPerUnit) {
  const std::vector<MendStep>& done = before.work.steps;
  const std::vector<MendStep>& wanted = work.steps;
  if (before.start != start || before.mmPerUnit != mmPerUnit || !(before.work.settings == work.settings)) return false;
  if (done.size() > wanted.size() || !std::equal(done.begin(), done.end(), wanted.begin())) return false;
  const auto takesAll = [](const MendStep& step) { return step.what == MendStep::What::Proposals; };
  const auto rest = wanted.begin() + static_cast<std::ptrdiff_t>(done.size());
  return std::none_of(done.begin(), done.end(), takesAll) || std::none_of(rest, wanted.end(), leavesSomething);
}

}  // namespace

std::vector<std::string> repairsFor(const Finding& finding) {
  switch (finding.kind) {
    case FindingKind::Unjoined:
      return {"join"};
    case FindingKind::OpenEnd:
      if (finding.repair == "bridge") return {"bridge"};
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
    case FindingKind::LostDecision:
      return {"forget"};
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
  const auto path = placeOf(drawing, finding.outline);
  const auto other = placeOf(drawing, finding.other);
  if (!path || !other) return drawing;
  const Spot spot{finding.at, *path, *other};
  if (repair == "drop") return withoutPaths(drawing, {*path});
  if (repair == "join") return withJoined(drawing, spot, settings);
  if (repair == "bridge") return bridgedAt(drawing, *path, *other, finding.at, settings);
  if (repair == "nearest") return joinedFar(drawing, {*path, finding.at}, settings, stop);
  if (finding.kind == FindingKind::Spike) return withoutSpikeAt(drawing, spot, repair, settings);
  if (repair == "one" || repair == "once")
    return oneLineFromTwo(drawing, *path, *other, withBorders(settings, repair)).drawing;
  if (finding.kind == FindingKind::StrokePair) return withoutStrokeAt(drawing, spot, repair, settings);
  if (finding.kind == FindingKind::SelfCrossing || finding.kind == FindingKind::Loop)
    return untangledAt(drawing, *path, finding.at, settings, bowTieRule(repair));
  return finding.kind == FindingKind::CoincidentNode ? withOneNodeAt(drawing, spot, settings) : drawing;
}

Drawing repairedAll(const Drawing& drawing, FindingKind kind, const std::string& repair, const MendSettings& settings,
                    const std::stop_token& stop) {
  MendSettings own = settings;
  switch (kind) {
    case FindingKind::OpenEnd:
      if (repair == "join") return joinEnds(drawing, settings).drawing;
      if (repair == "bridge") return bridgedStrokes(drawing, settings).drawing;
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
  std::set<OutlineId> gone;
  for (const Finding& f : inspect(drawing, settings, stop)) {
    const bool same = f.kind == kind && (kind != FindingKind::OpenEnd || f.repair.empty());
    if (same) gone.insert(f.outline);
  }
  return withoutOutlines(drawing, gone);
}

Drawing repairedSafely(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  MendSettings safe = settings;
  safe.gapMm = std::min(settings.gapMm, settings.invisibleMm);
  safe.loopMm = std::min(settings.loopMm, settings.invisibleMm);
  safe.doubles = DoubleRule::One;
  safe.borders = BorderRule::Twice;
  const Drawing out = mendedInRounds(drawing, safe, settings.invisibleMm, stop).drawing;
  std::vector<std::size_t> gone = closedBelow(pathsOf(out), settings.invisibleMm);
  for (const std::size_t scrap : scraps(pathsOf(out), pairEnds(out, safe), safe, PieceIndex(pathsOf(out))))
    gone.push_back(scrap);
  return withoutPaths(out, gone);
}

Drawing repairedAsProposed(const Drawing& drawing, const MendWork& work, double mmPerUnit,
                           const std::stop_token& stop) {
  const Drawing out = mended(drawing, work.settings, stop).drawing;
  const std::vector<Finding> all = inspect(out, work.settings, stop);
  const std::vector<Finding> wanted = withoutLeft(all, out, work, mmPerUnit);
  std::set<OutlineId> gone;
  std::vector<Point> left;
  for (const Finding& f : wanted) {
    if (f.repair == "drop") gone.insert(f.outline);
  }
  for (const Finding& f : all) {
    const auto same = [&f](const Finding& w) { return w.at == f.at && w.kind == f.kind; };
    if (f.repair == "bridge" && std::none_of(wanted.begin(), wanted.end(), same)) left.push_back(f.at);
  }
  return withoutOutlines(bridgedStrokes(out, work.settings, left).drawing, gone);
}

Decided decided(const Drawing& drawing, const MendWork& work, double mmPerUnit, const std::stop_token& stop) {
  Decisions all = decisionsOn(std::make_shared<const Drawing>(drawing), work, mmPerUnit, {}, {}, stop);
  return {oriented(all.drawing), std::move(all.lost)};
}

Decisions decisionsOn(std::shared_ptr<const Drawing> start, const MendWork& work, double mmPerUnit,
                      const Decisions& before, const Inspected& known, const std::stop_token& stop) {
  Decisions all = goesOn(before, start, work, mmPerUnit) ? before : Decisions{start, mmPerUnit, {}, *start, {}, known};
  const std::size_t done = all.work.steps.size();
  all.work = work;
  for (std::size_t i = done; i < work.steps.size(); ++i) {
    const MendStep& step = work.steps[i];
    Drawing& out = all.drawing;
    if (step.what == MendStep::What::Safe) out = repairedSafely(out, work.settings, stop);
    if (step.what == MendStep::What::Kind) out = repairedAll(out, step.kind, step.repair, work.settings, stop);
    if (step.what == MendStep::What::Proposals) out = repairedAsProposed(out, work, mmPerUnit, stop);
    if (step.what != MendStep::What::One) continue;
    all.inspected = inspected(out, work.settings, all.inspected, stop);
    const std::vector<Finding>& findings = all.inspected.findings();
    const auto which = foundAgain(step, out, findings, work.settings, mmPerUnit);
    if (which) out = repaired(out, findings[*which], step.repair, work.settings, stop);
    if (!which) all.lost.push_back(i);
  }
  return all;
}

std::vector<Finding> withoutLeft(std::vector<Finding> findings, const Drawing& drawing, const MendWork& work,
                                 double mmPerUnit) {
  for (const MendStep& step : work.steps) {
    const bool borders = step.kind == FindingKind::DoubleLine && step.repair == "twice";
    if (borders && step.what == MendStep::What::Kind) {
      std::erase_if(findings, [](const Finding& f) { return f.kind == FindingKind::DoubleLine && f.repair.empty(); });
    }
    if (step.what != MendStep::What::Leave && !(borders && step.what == MendStep::What::One)) continue;
    const auto left = foundAgain(step, drawing, findings, work.settings, mmPerUnit);
    if (left) findings.erase(findings.begin() + static_cast<std::ptrdiff_t>(*left));
  }
  return findings;
}

std::vector<Finding> lostDecisions(const Drawing& drawing, const MendWork& work, const std::vector<std::size_t>& lost,
                                   double mmPerUnit) {
  std::vector<Finding> findings;
  for (const std::size_t i : lost) {
    Finding finding;
    finding.kind = FindingKind::LostDecision;
    finding.at = work.steps[i].at * mmPerUnit;
    finding.outline = finding.other = placeOf(drawing, work.steps[i].outline) ? work.steps[i].outline : OutlineId::None;
    finding.words = "A repair that was decided here finds nothing to repair any more (" + nameOf(work.steps[i].kind) +
                    ", " + work.steps[i].repair + "): what lies before it was changed.";
    finding.repair = "forget";
    findings.push_back(std::move(finding));
  }
  return findings;
}

}  // namespace rim::mend
