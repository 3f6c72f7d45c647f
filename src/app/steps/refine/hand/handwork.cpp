#include "app/steps/refine/hand/handwork.h"

#include <QApplication>
#include <QClipboard>
#include <QMimeData>
#include <map>

#include "app/session.h"
#include "app/steps/refine/hand/arrange_bar.h"
#include "app/steps/refine/hand/chain_tool.h"
#include "app/steps/refine/hand/knife_tool.h"
#include "app/steps/refine/hand/measure_tool.h"
#include "app/steps/refine/hand/meet_tool.h"
#include "app/steps/refine/hand/mirror_tool.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/offset_bar.h"
#include "app/steps/refine/hand/offset_tool.h"
#include "app/steps/refine/hand/outline_brush.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/hand/shape_bar.h"
#include "app/steps/refine/hand/shape_tool.h"
#include "app/steps/refine/hand/trim_tool.h"
#include "app/steps/refine/refine_actions.h"
#include "app/steps/refine/refine_text.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"
#include "app/widgets/svg_mime.h"
#include "core/io/read_drawing.h"
#include "core/io/svg/write_svg.h"
#include "core/refine/edit/layers.h"

namespace rim::app {
namespace {

constexpr double kBesideMm = 2;  // a copy lies so far to the right and below

}  // namespace

Handwork::Handwork(Session& session, const RefineActions& actions, QWidget* parent)
    : QWidget(parent),
      session_(session),
      actions_(actions),
      select_(new SelectTool(this)),
      nodes_(new NodeTool(this)),
      snapping_(new Snapping(this)),
      offset_(new OffsetTool(this)),
      mirror_(new MirrorTool(*snapping_, this)),
      chain_(new ChainTool(*snapping_, this)) {
  auto* measure = new MeasureTool(*snapping_, this);
  auto* shapes = new ShapeTool(*snapping_, this);
  tools_ = {select_,
            nodes_,
            new MeetTool(this),
            new OutlineBrush(OutlineBrush::Does::Corner, this),
            new OutlineBrush(OutlineBrush::Does::Smooth, this),
            shapes,
            measure,
            new TrimTool(this),
            new KnifeTool(*snapping_, this),
            offset_,
            mirror_,
            chain_};
  connect(measure, &MeasureTool::sizedBy, this, &Handwork::sizedBy);
  connect(mirror_, &MirrorTool::copied, this,
          [this](const std::vector<refine::ByHand::One>& copies) { addNew(tr("Mirror"), copies); });
  nodes_->setSnapping(snapping_);
  partLayout(this);
  buildTools();
  buildButtons();
  for (HandTool* tool : tools_) {
    connect(tool, &HandTool::made, this, &Handwork::change);
    connect(tool, &HandTool::refused, this, &Handwork::refused);
  }
  connect(select_, &SelectTool::chosenChanged, this, &Handwork::followChosen);
  connect(select_, &SelectTool::moved, this, &Handwork::moveChosen);
  connect(nodes_, &NodeTool::chosenChanged, this, &Handwork::showAllowed);
  const auto draw = [this](const Path& path) { addNew(tr("Draw"), {refine::madeByHand({}, {path})}); };
  connect(shapes, &ShapeTool::drawn, this, draw);
  connect(chain_, &ChainTool::drawn, this, draw);
  connect(shapes_, &ShapeBar::wayChanged, this, [this](ShapeBar::Way way) {
    chain_->setArc(way == ShapeBar::Way::Arc);
    emit toolChanged();
  });
  connect(shapes_, &ShapeBar::wished, shapes, &ShapeTool::setWish);
  connect(offsets_, &OffsetBar::wished, offset_, [this](refine::Joins joins, bool instead) {
    offset_->setInstead(instead);
    offset_->setJoins(joins);
  });
  connect(actions_.hand.snap, &QAction::toggled, snapping_, &Snapping::setOn);
  connect(actions_.hand.lasso, &QAction::toggled, select_, &SelectTool::setLasso);
  connectNodes();
}

BenchTool& Handwork::tool() const {
  const auto which = actions_.hand.tools->actions().indexOf(actions_.hand.tools->checkedAction());
  const bool chain = which == static_cast<int>(Hand::Draw) && shapes_->way() != ShapeBar::Way::Shape;
  return chain ? *chain_ : *tools_[static_cast<std::size_t>(which)];
}

void Handwork::setNudge(double mm) {
  for (HandTool* tool : tools_) tool->setNudge(mm);
}

void Handwork::take(Hand hand) {
  QAction* action = actions_.hand.tools->actions()[static_cast<int>(hand)];
  if (!action->isChecked()) action->trigger();
}

void Handwork::followChosen() {
  offset_->setChosen(select_->chosen());
  mirror_->setChosen(select_->chosen());
  // While the drawing is worked out what is typed into stays as it is.
  if (session_.hasWork() && !session_.upToDate()) return showAllowed();
  arrange_->show(chosenInMm(), unit_);
  showAllowed();
  emit chosenChanged();
}

std::vector<OutlineMark> Handwork::chosenMarks() const {
  std::vector<OutlineMark> marks;
  for (const Outline& outline : chosenOutlines()) marks.push_back(markOf(outline));
  return marks;
}

void Handwork::show(Unit unit) {
  unit_ = unit;
  if (!session_.hasWork()) {
    for (HandTool* tool : tools_) tool->setOutlines(nullptr, 1);
  } else if (session_.upToDate()) {
    takeOutlines(job::outlinesOf(session_.job()));
  }
  followChosen();
}

/// What a tool made is what it works on until the drawing has it, too.
void Handwork::takeOutlines(const std::shared_ptr<const Drawing>& outlines) {
  // Nothing on a locked layer is taken hold of, but places snap to it.
  const std::set<std::string> locked = refine::lockedLayers(session_.job().refine);
  const auto free =
      locked.empty() ? outlines : std::make_shared<const Drawing>(refine::withoutLayers(*outlines, locked));
  for (HandTool* tool : tools_) {
    tool->setOutlines(free, job::mmPerPixel(session_.job()));
    tool->setAround(locked.empty() ? nullptr : outlines);
  }
  if (fresh_) {
    std::set<OutlineId> added;
    for (const Outline& outline : outlines->outlines) {
      if (fresh_->count(outline.id) == 0) added.insert(outline.id);
    }
    fresh_.reset();
    select_->choose(std::move(added));
  }
  if (!(owed_ == Point{})) moveChosen({});
}

std::vector<Outline> Handwork::chosenOutlines() const {
  std::vector<Outline> chosen;
  const auto outlines = session_.upToDate() ? job::outlinesOf(session_.job()) : nullptr;
  if (!outlines || select_->chosen().empty()) return chosen;
  for (const Outline& outline : outlines->outlines) {
    if (select_->chosen().count(outline.id) != 0) chosen.push_back(outline);
  }
  return chosen;
}

std::set<OutlineId> Handwork::chosenIds() const {
  std::set<OutlineId> ids;
  for (const Outline& outline : chosenOutlines()) ids.insert(outline.id);
  return ids;
}

void Handwork::change(const QString& name, const std::vector<refine::ByHand::One>& changes, const QString& mergeKey) {
  session_.edit(name, mergeKey,
                [&changes](job::Job& job) { job.refine = refine::withHandwork(std::move(job.refine), changes); });
}

void Handwork::removeChosen() {
  if (&tool() == nodes_) return nodes_->deleteNodes();
  const std::vector<Outline> chosen = chosenOutlines();
  if (chosen.empty()) return;
  if (chosen.size() == job::outlinesOf(session_.job())->outlines.size()) {
    emit refused(tr("That would leave no outline at all."));
    return;
  }
  refine::Remove remove;
  for (const Outline& outline : chosen) remove.outlines.push_back(markOf(outline));
  const QString name = tr("Delete %1").arg(counted(chosen.size(), tr("1 outline"), tr("%1 outlines")));
  session_.edit(name, {}, [&remove](job::Job& job) { job.refine.push_back(remove); });
}

void Handwork::moveChosen(Point by) {
  // Keys come faster than a large drawing is worked out; what they ask for is done as soon as it is.
  owed_ = owed_ + by;
  if (!session_.upToDate()) return;
  by = std::exchange(owed_, {});
  std::vector<refine::ByHand::One> changes;
  for (const Outline& outline : chosenOutlines())
    changes.push_back(refine::madeByHand(markOf(outline), {scaled(outline.path(), 1, by)}));
  if (changes.empty() || by == Point{}) return;
  change(tr("Move %1").arg(counted(changes.size(), tr("1 outline"), tr("%1 outlines"))), changes, {});
}

void Handwork::bringChosenTo(Point middleMm) {
  const Box box = boxOf(chosenInMm());
  if (!box.empty()) moveChosen((middleMm - lerp(box.low, box.high, 0.5)) * (1 / job::mmPerPixel(session_.job())));
}

void Handwork::arrangeChosen(const QString& name, const Drawing& became) {
  const std::vector<Outline> chosen = chosenOutlines();
  if (chosen.empty()) return;  // the drawing changed in the meantime
  std::map<OutlineId, std::vector<Path>> paths;
  for (const Outline& outline : chosen) paths[outline.id];
  auto of = paths.find(chosen.front().id);
  for (const Outline& outline : became.outlines) {
    // What is new stands behind the one that it came of.
    const auto own = paths.find(outline.id);
    if (own != paths.end()) of = own;
    of->second.push_back(scaled(outline.path(), 1 / job::mmPerPixel(session_.job())));
  }
  std::vector<refine::ByHand::One> changes;
  for (const Outline& outline : chosen)
    changes.push_back(refine::madeByHand(markOf(outline), std::move(paths[outline.id])));
  change(name, changes, {});
}

void Handwork::groupChosen(bool together) {
  const std::vector<OutlineMark> marks = chosenMarks();
  if (marks.empty()) return;
  const refine::Group step{marks, together};
  session_.edit(refineName(step), {}, [&step](job::Job& job) { job.refine.push_back(step); });
}

void Handwork::duplicateChosen() {
  const double beside = kBesideMm / job::mmPerPixel(session_.job());
  std::vector<refine::ByHand::One> changes;
  for (const Outline& outline : chosenOutlines())
    changes.push_back(refine::madeByHand({}, {scaled(outline.path(), 1, {beside, -beside})}, outline.layer));
  take(Hand::Outlines);
  addNew(tr("Double"), changes);
}

void Handwork::addNew(const QString& name, const std::vector<refine::ByHand::One>& changes) {
  const auto outlines = job::outlinesOf(session_.job());
  if (changes.empty() || !outlines) return;
  fresh_.emplace();
  for (const Outline& outline : outlines->outlines) fresh_->insert(outline.id);
  change(name, changes, {});
}

/// The outlines that are chosen, in a drawing of their own; none while they are being worked out.
Drawing Handwork::chosenInMm() const {
  const auto outlines = session_.hasWork() && session_.upToDate() ? job::outlinesOf(session_.job()) : nullptr;
  if (!outlines) return {};
  Drawing chosen = emptyLike(*outlines);
  chosen.outlines = chosenOutlines();
  return inFrame(chosen, Frame::Millimetres, job::mmPerPixel(session_.job()));
}

void Handwork::copyChosen() {
  const Drawing chosen = chosenInMm();
  if (chosen.outlines.empty()) return;
  QApplication::clipboard()->setMimeData(svgContent(QByteArray::fromStdString(io::svg::svgText(chosen))));
}

bool Handwork::paste(const QMimeData* content) {
  if (content == nullptr || !session_.upToDate()) return false;
  const QByteArray svg = svgIn(*content);
  if (svg.isEmpty()) return false;
  putIn(svg);
  return true;
}

void Handwork::putIn(const QByteArray& svg, const std::optional<Point>& middle) {
  if (!session_.upToDate()) {
    emit refused(tr("The outlines are still being worked out; try it again in a moment."));
    return;
  }
  const auto read = outcomeOf([&svg] { return io::readDrawing(svg.toStdString(), "clipboard.svg"); });
  if (!read.trouble.isEmpty()) {
    emit refused(tr("These outlines cannot be pasted: %1").arg(read.trouble));
    return;
  }
  const auto outlines = job::outlinesOf(session_.job());
  const double k = job::mmPerPixel(session_.job());
  std::vector<refine::ByHand::One> changes;
  const Box all = boxOf(read.result.drawing);
  const Point by = middle ? *middle - lerp(all.low, all.high, 0.5) * (1 / k) : Point{};
  for (const Outline& outline : read.result.drawing.outlines) {
    Path path = scaled(outline.path(), 1 / k, by);
    const Box box = boxOf(path);
    const bool same = std::any_of(outlines->outlines.begin(), outlines->outlines.end(), [&box](const Outline& other) {
      const Box there = boxOf(other.path());
      return distance(there.low, box.low) + distance(there.high, box.high) < 0.1;
    });
    // Over itself a copy could not be seen.
    if (same) path = scaled(path, 1, Point{kBesideMm, -kBesideMm} * (1 / k));
    changes.push_back(refine::madeByHand({}, {std::move(path)}));
  }
  take(Hand::Outlines);
  addNew(tr("Paste %1").arg(counted(changes.size(), tr("1 outline"), tr("%1 outlines"))), changes);
}

}  // namespace rim::app
