// What the panel of the hand tools shows: the tools, the buttons and menus, and which of them can be used now.

#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/refine/hand/arrange_bar.h"
#include "app/steps/refine/hand/chain_tool.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/offset_bar.h"
#include "app/steps/refine/hand/offset_tool.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/hand/shape_bar.h"
#include "app/steps/refine/refine_actions.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"
#include "core/refine/edit/likeness.h"

namespace rim::app {

void Handwork::buildTools() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("By hand"));
  auto* grid = new QGridLayout;
  grid->setSpacing(0);
  // Three short names or two long ones in a row.
  const QList<QList<Hand>> rows{{Hand::Outlines, Hand::Nodes, Hand::Draw},
                                {Hand::Meet, Hand::Trim, Hand::Offset},
                                {Hand::CornerBrush, Hand::SmoothBrush},
                                {Hand::Knife, Hand::Mirror, Hand::Measure}};
  constexpr int kColumns = 6;
  const QList<QAction*> tools = actions_.hand.tools->actions();
  for (int row = 0; row < rows.size(); ++row) {
    const int span = kColumns / static_cast<int>(rows[row].size());
    for (int i = 0; i < rows[row].size(); ++i)
      grid->addWidget(buttonFor(tools[static_cast<int>(rows[row][i])]), row, span * i, 1, span);
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
  outlines->addWidget(buttonFor(actions_.hand.duplicate));
  auto* choosing = new QPushButton(tr("Choos&e"));
  choosing->setObjectName("chooseMore");
  auto* ways = new QMenu(choosing);
  ways->addAction(actions_.chooseAll);
  ways->addActions(actions_.hand.alike);
  ways->addSeparator();
  ways->addAction(actions_.hand.lasso);
  ways->setToolTipsVisible(true);
  choosing->setMenu(ways);
  outlines->addWidget(choosing);
  column->addWidget(forOutlines_);
  arrange_ = new ArrangeBar;
  column->addWidget(arrange_);
  connect(arrange_, &ArrangeBar::arranged, this, &Handwork::arrangeChosen);
  connect(arrange_, &ArrangeBar::refused, this, &Handwork::refused);
  shapes_ = new ShapeBar;
  column->addWidget(shapes_);
  offsets_ = new OffsetBar;
  column->addWidget(offsets_);
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
  buildMenu();
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
  connect(hand.group, &QAction::triggered, this, [this] { groupChosen(true); });
  connect(hand.ungroup, &QAction::triggered, this, [this] { groupChosen(false); });
  connect(hand.copy, &QAction::triggered, this, &Handwork::copyChosen);
  connect(hand.cut, &QAction::triggered, this, [this] {
    copyChosen();
    removeChosen();
  });
}

/// What the second mouse button and the button *Choose* show.
void Handwork::buildMenu() {
  const HandActions& hand = actions_.hand;
  for (int i = 0; i < hand.alike.size(); ++i) {
    connect(hand.alike[i], &QAction::triggered, this, [this, how = static_cast<refine::Likeness>(i)] {
      const auto outlines = session_.upToDate() ? select_->outlines() : nullptr;
      if (!outlines) return;
      take(Hand::Outlines);
      select_->choose(refine::alike(*outlines, select_->chosen(), how));
    });
  }
  menu_ = new QMenu(this);
  menu_->setToolTipsVisible(true);
  connect(menu_, &QMenu::aboutToShow, this, [this, &hand] {
    menu_->clear();
    if (&tool() == nodes_) {
      menu_->addAction(actions_.deleteChosen);
      menu_->addActions(hand.ofNodes());
      return;
    }
    menu_->addActions({hand.cut, hand.copy, actions_.paste, hand.duplicate, actions_.deleteChosen});
    menu_->addActions({hand.group, hand.ungroup, hand.exportChosen});
    menu_->addSeparator();
    menu_->addAction(actions_.chooseAll);
    menu_->addActions(hand.alike);
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
  shapes_->setVisible(&tool() == chain_ || &tool() == tools_[static_cast<std::size_t>(Hand::Draw)]);
  offsets_->setVisible(&tool() == offset_);
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
  for (QAction* action : {hand.duplicate, hand.copy, hand.cut, hand.exportChosen, hand.ungroup})
    allow(action, selecting && count > 0, choose);
  allow(hand.group, selecting && count > 1, tr("Choose two outlines or more first."));
  for (int i = 0; i < hand.alike.size(); ++i) {
    const bool alone = i == static_cast<int>(refine::Likeness::Open) || i == static_cast<int>(refine::Likeness::Others);
    allow(hand.alike[i], session_.hasWork() && (alone || count > 0), choose);
  }
  allow(actions_.deleteChosen, noding ? nodes || segments : selecting && count > 0, noding ? nothing : choose);
  allow(actions_.chooseAll, session_.hasWork(), tr("Open a picture or a drawing first."));
  for (QAction* action : hand.tools->actions())
    allow(action, session_.hasWork(), tr("Open a picture or a drawing first."));
}

}  // namespace rim::app
