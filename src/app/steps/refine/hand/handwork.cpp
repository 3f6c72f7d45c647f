#include "app/steps/refine/hand/handwork.h"

#include <QApplication>
#include <QClipboard>
#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>
#include <map>

#include "app/actions.h"
#include "app/session.h"
#include "app/steps/refine/hand/arrange_bar.h"
#include "app/steps/refine/hand/measure_tool.h"
#include "app/steps/refine/hand/meet_tool.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/outline_brush.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/hand/shape_bar.h"
#include "app/steps/refine/hand/shape_tool.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"
#include "app/widgets/svg_mime.h"
#include "core/io/read_drawing.h"
#include "core/io/svg/write_svg.h"

namespace rim::app {
namespace {

constexpr double kBesideMm = 2;  // a copy lies so far to the right and below

}  // namespace

Handwork::Handwork(Session& session, Actions& actions, QWidget* parent)
    : QWidget(parent),
      session_(session),
      actions_(actions),
      select_(new SelectTool(this)),
      nodes_(new NodeTool(this)),
      snapping_(new Snapping(this)) {
  auto* shapes = new ShapeTool(*snapping_, this);
  tools_ = {select_,
            nodes_,
            new MeetTool(this),
            new OutlineBrush(OutlineBrush::Does::Corner, this),
            new OutlineBrush(OutlineBrush::Does::Smooth, this),
            shapes,
            new MeasureTool(*snapping_, this)};
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
  connect(shapes, &ShapeTool::drawn, this,
          [this](const Path& path) { addNew(tr("Draw"), {refine::madeByHand({}, {path})}); });
  connect(shapes_, &ShapeBar::wished, shapes, &ShapeTool::setWish);
  connect(actions_.hand.snap, &QAction::toggled, snapping_, &Snapping::setOn);
  connectNodes();
}

void Handwork::buildTools() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("By hand"));
  auto* grid = new QGridLayout;
  grid->setSpacing(0);
  const QList<QAction*> tools = actions_.hand.tools->actions();
  for (int i = 0; i < tools.size(); ++i) {
    QPushButton* button = buttonFor(tools[i]);
    // Three short names, two long ones, two short ones.
    if (i < 3) {
      grid->addWidget(button, 0, 2 * i, 1, 2);
    } else {
      grid->addWidget(button, 1 + (i - 3) / 2, 3 * ((i - 3) % 2), 1, 3);
    }
  }
  column->addLayout(grid);
  connect(actions_.hand.tools, &QActionGroup::triggered, this, [this] {
    showAllowed();
    emit toolChanged();
  });
  chosen_ = addText(column);
  chosen_->setObjectName("chosen");
}

void Handwork::buildButtons() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  forOutlines_ = new QWidget;
  auto* outlines = new QHBoxLayout(forOutlines_);
  outlines->setContentsMargins(0, 0, 0, 0);
  outlines->addWidget(buttonFor(actions_.deleteChosen));
  outlines->addWidget(buttonFor(actions_.chooseAll));
  outlines->addWidget(buttonFor(actions_.hand.duplicate));
  column->addWidget(forOutlines_);
  arrange_ = new ArrangeBar;
  column->addWidget(arrange_);
  connect(arrange_, &ArrangeBar::arranged, this, &Handwork::arrangeChosen);
  connect(arrange_, &ArrangeBar::refused, this, &Handwork::refused);
  shapes_ = new ShapeBar;
  column->addWidget(shapes_);
  forNodes_ = new QWidget;
  auto* nodes = new QGridLayout(forNodes_);
  nodes->setContentsMargins(0, 0, 0, 0);
  const HandActions& hand = actions_.hand;
  const QList<QAction*> first{hand.line, hand.arc, hand.curve, hand.smooth, hand.corner};
  for (int i = 0; i < first.size(); ++i) nodes->addWidget(buttonFor(first[i]), i / 3, i % 3);
  auto* more = new QPushButton(tr("Mo&re"));
  more->setObjectName("moreOfNodes");
  auto* menu = new QMenu(more);
  menu->addAction(actions_.deleteChosen);
  menu->addActions(hand.ofNodes().mid(first.size()));
  menu->setToolTipsVisible(true);
  more->setMenu(menu);
  nodes->addWidget(more, 1, 2);
  column->addWidget(forNodes_);
  connect(actions_.deleteChosen, &QAction::triggered, this, &Handwork::removeChosen);
  connect(actions_.chooseAll, &QAction::triggered, this, [this] {
    if (&tool() == nodes_ && nodes_->outline()) {
      nodes_->chooseAllNodes();
    } else {
      take(Hand::Outlines);
      select_->chooseAll();
    }
  });
  connect(hand.duplicate, &QAction::triggered, this, &Handwork::duplicateChosen);
  connect(hand.copy, &QAction::triggered, this, &Handwork::copyChosen);
  connect(hand.cut, &QAction::triggered, this, [this] {
    copyChosen();
    removeChosen();
  });
}

void Handwork::connectNodes() {
  const HandActions& hand = actions_.hand;
  const auto on = [this](QAction* action, const auto& does) { connect(action, &QAction::triggered, nodes_, does); };
  on(hand.line, [this] { nodes_->makeSegments(SegmentKind::Line); });
  on(hand.arc, [this] { nodes_->makeSegments(SegmentKind::Arc); });
  on(hand.curve, [this] { nodes_->makeSegments(SegmentKind::Cubic); });
  on(hand.smooth, [this] { nodes_->makeSmooth(); });
  on(hand.corner, [this] { nodes_->makeCorner(); });
  on(hand.deleteSegments, [this] { nodes_->deleteSegments(); });
  on(hand.part, [this] { nodes_->part(); });
  on(hand.close, [this] { nodes_->close(); });
  on(hand.turnRound, [this] { nodes_->turnRound(); });
  on(hand.startHere, [this] { nodes_->startHere(); });
  on(hand.level, [this] { nodes_->lineUp(refine::LineUp::Level); });
  on(hand.upright, [this] { nodes_->lineUp(refine::LineUp::Upright); });
  on(hand.slanting, [this] { nodes_->lineUp(refine::LineUp::Slanting); });
  on(hand.spread, [this] { nodes_->spread(); });
}

BenchTool& Handwork::tool() const {
  const auto which = actions_.hand.tools->actions().indexOf(actions_.hand.tools->checkedAction());
  return *tools_[static_cast<std::size_t>(which)];
}

void Handwork::take(Hand hand) {
  QAction* action = actions_.hand.tools->actions()[static_cast<int>(hand)];
  if (!action->isChecked()) action->trigger();
}

void Handwork::followChosen() {
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
    takeOutlines(outlinesOf(session_.job()));
  }
  followChosen();
}

/// What a tool made is what it works on until the drawing has it, too.
void Handwork::takeOutlines(const std::shared_ptr<const Drawing>& outlines) {
  for (HandTool* tool : tools_) tool->setOutlines(outlines, mmPerPixel(session_.job()));
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

void Handwork::showAllowed() {
  const bool noding = &tool() == nodes_;
  const bool selecting = &tool() == select_;
  const std::size_t count = select_->chosen().size();
  if (selecting) {
    chosen_->setText(
        count == 0
            ? tr("Nothing chosen. Click an outline, or draw a box round some; Shift adds.")
            : tr("%1. Drag or arrow keys move, Del deletes.").arg(counted(count, tr("1 outline"), tr("%1 outlines"))));
  } else if (noding) {
    chosen_->setText(nodes_->outline() ? nodes_->chosenText() : tr("No outline is taken hold of."));
  }
  chosen_->setVisible(selecting || noding);
  forOutlines_->setVisible(selecting);
  forNodes_->setVisible(noding);
  arrange_->setVisible(selecting && count > 0);
  shapes_->setVisible(&tool() == tools_[static_cast<std::size_t>(Hand::Draw)]);
  const bool segments = noding && !nodes_->segments().empty();
  const bool nodes = noding && !nodes_->nodes().empty();
  const QString nothing = noding ? tr("Choose nodes or a segment first.") : tr("Take the tool for nodes first.");
  const HandActions& hand = actions_.hand;
  for (QAction* action : {hand.line, hand.arc, hand.curve, hand.deleteSegments}) allow(action, segments, nothing);
  for (QAction* action : {hand.smooth, hand.corner, hand.part, hand.startHere}) allow(action, nodes, nothing);
  for (QAction* action : {hand.level, hand.upright, hand.slanting})
    allow(action, nodes && nodes_->nodes().size() > 1, tr("Choose two nodes or more first."));
  allow(hand.spread, nodes && nodes_->nodes().size() > 2, tr("Choose three nodes or more first."));
  allow(hand.turnRound, noding && nodes_->outline().has_value(), nothing);
  allow(hand.close, noding && nodes_->outline() && !nodes_->path().closed,
        tr("Take hold of an open outline with the tool for nodes first."));
  const QString choose = tr("Choose outlines on the bench first.");
  for (QAction* action : {hand.duplicate, hand.copy, hand.cut}) allow(action, selecting && count > 0, choose);
  allow(actions_.deleteChosen, noding ? nodes || segments : selecting && count > 0, noding ? nothing : choose);
  allow(actions_.chooseAll, session_.hasWork(), tr("Open a picture or a drawing first."));
  for (QAction* action : hand.tools->actions())
    allow(action, session_.hasWork(), tr("Open a picture or a drawing first."));
}

std::vector<Outline> Handwork::chosenOutlines() const {
  std::vector<Outline> chosen;
  const auto outlines = session_.upToDate() ? outlinesOf(session_.job()) : nullptr;
  for (const Outline& outline : outlines ? outlines->outlines : std::vector<Outline>{}) {
    if (select_->chosen().count(outline.id) != 0) chosen.push_back(outline);
  }
  return chosen;
}

void Handwork::change(const QString& name, const std::vector<refine::ByHand::One>& changes, const QString& mergeKey) {
  session_.edit(name, mergeKey,
                [&changes](Job& job) { job.refine = refine::withHandwork(std::move(job.refine), changes); });
}

void Handwork::removeChosen() {
  if (&tool() == nodes_) return nodes_->deleteNodes();
  const std::vector<Outline> chosen = chosenOutlines();
  if (chosen.empty()) return;
  if (chosen.size() == outlinesOf(session_.job())->outlines.size()) {
    emit refused(tr("That would leave no outline at all."));
    return;
  }
  refine::Remove remove;
  for (const Outline& outline : chosen) remove.outlines.push_back(markOf(outline));
  const QString name = tr("Delete %1").arg(counted(chosen.size(), tr("1 outline"), tr("%1 outlines")));
  session_.edit(name, {}, [&remove](Job& job) { job.refine.push_back(remove); });
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
    of->second.push_back(scaled(outline.path(), 1 / mmPerPixel(session_.job())));
  }
  std::vector<refine::ByHand::One> changes;
  for (const Outline& outline : chosen)
    changes.push_back(refine::madeByHand(markOf(outline), std::move(paths[outline.id])));
  change(name, changes, {});
}

void Handwork::duplicateChosen() {
  const double beside = kBesideMm / mmPerPixel(session_.job());
  std::vector<refine::ByHand::One> changes;
  for (const Outline& outline : chosenOutlines())
    changes.push_back(refine::madeByHand({}, {scaled(outline.path(), 1, {beside, -beside})}, outline.layer));
  take(Hand::Outlines);
  addNew(tr("Double"), changes);
}

void Handwork::addNew(const QString& name, const std::vector<refine::ByHand::One>& changes) {
  const auto outlines = outlinesOf(session_.job());
  if (changes.empty() || !outlines) return;
  fresh_.emplace();
  for (const Outline& outline : outlines->outlines) fresh_->insert(outline.id);
  change(name, changes, {});
}

/// The outlines that are chosen, in a drawing of their own; none while they are being worked out.
Drawing Handwork::chosenInMm() const {
  const auto outlines = session_.hasWork() && session_.upToDate() ? outlinesOf(session_.job()) : nullptr;
  if (!outlines) return {};
  Drawing chosen = emptyLike(*outlines);
  chosen.outlines = chosenOutlines();
  return inFrame(chosen, Frame::Millimetres, mmPerPixel(session_.job()));
}

void Handwork::copyChosen() {
  const Drawing chosen = chosenInMm();
  if (chosen.outlines.empty()) return;
  QApplication::clipboard()->setMimeData(svgContent(QByteArray::fromStdString(svgText(chosen))));
}

bool Handwork::paste(const QMimeData* content) {
  if (content == nullptr || !session_.upToDate()) return false;
  const QByteArray svg = svgIn(*content);
  if (svg.isEmpty()) return false;
  const auto read = outcomeOf([&svg] { return readDrawing(svg.toStdString(), "clipboard.svg"); });
  if (!read.trouble.isEmpty()) {
    emit refused(tr("What is on the clipboard cannot be pasted: %1").arg(read.trouble));
    return true;
  }
  const auto outlines = outlinesOf(session_.job());
  const double k = mmPerPixel(session_.job());
  std::vector<refine::ByHand::One> changes;
  for (const Outline& outline : read.result.drawing.outlines) {
    Path path = scaled(outline.path(), 1 / k);
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
  return true;
}

}  // namespace rim::app
