#include "app/steps/refine/hand/select_tool.h"

#include <QApplication>
#include <QPainter>

#include "app/look.h"
#include "app/widgets/counted.h"
#include "core/refine/edit/groups.h"
#include "core/refine/edit/likeness.h"
#include "core/refine/edit/shapes.h"

namespace rim::app {
void SelectTool::setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) {
  HandTool::setOutlines(std::move(outlines), mmPerPixel);
  std::set<OutlineId> still;
  if (outlines_) {
    for (const Outline& outline : outlines_->outlines) {
      if (chosen_.count(outline.id) != 0) still.insert(outline.id);
    }
  }
  choose(std::move(still));
}

void SelectTool::choose(std::set<OutlineId> outlines) {
  if (outlines == chosen_) return;
  chosen_ = std::move(outlines);
  emit changed();
  emit chosenChanged();
}

void SelectTool::chooseAll() {
  std::set<OutlineId> all;
  if (outlines_) {
    for (const Outline& outline : outlines_->outlines) all.insert(outline.id);
  }
  choose(std::move(all));
}

void SelectTool::paint(QPainter& painter, const ToolView& view) const {
  if (!outlines_) return;
  const Point by = moving_ && dragged_ ? now_ - *pressed_ : Point{};
  std::vector<Path> moved;
  for (const Outline& outline : outlines_->outlines) {
    if (chosen_.count(outline.id) != 0) moved.push_back(scaled(outline.path(), 1, by));
  }
  paintOver(painter, view, moved);
  if (!pressed_ || moving_ || !dragged_) return;
  if (!lasso_) return paintBox(painter, view, *pressed_, now_);
  QPolygonF round;
  for (const Point place : way_) round << view.viewport.toScreen(place);
  painter.setPen(QPen(look().text, 1, Qt::DashLine));
  painter.setBrush(Qt::NoBrush);
  painter.drawPolygon(round);
}

void SelectTool::press(Point place, const ToolView& view) {
  pressed_ = now_ = upright(place, view);
  way_ = {now_};
  dragged_ = false;
  const auto hit = outlines_ ? outlineAt(*outlines_, *pressed_, view.reach(), true) : std::nullopt;
  moving_ = hit && chosen_.count(*hit) != 0 && !adds() && !alone();
  if (!hit || moving_) return;
  std::set<OutlineId> next = adds() ? chosen_ : std::set<OutlineId>{};
  const std::set<OutlineId> own = alone() ? std::set<OutlineId>{*hit} : refine::wholeGroups(*outlines_, {*hit});
  if (adds() && chosen_.count(*hit) != 0) {
    for (const OutlineId id : own) next.erase(id);
  } else {
    next.insert(own.begin(), own.end());
  }
  choose(std::move(next));
  moving_ = chosen_.count(*hit) != 0;
}

void SelectTool::move(Point place, const ToolView& view) {
  if (!pressed_) return;
  now_ = upright(place, view);
  dragged_ = dragged_ || isDrag(*pressed_, now_, view);
  constexpr double kStepOnScreen = 2;
  if (distance(way_.back(), now_) * view.viewport.scale >= kStepOnScreen) way_.push_back(now_);
  emit changed();
}

void SelectTool::release(Point place, const ToolView& view) {
  if (!pressed_) return;
  move(place, view);
  const Point from = *pressed_;
  pressed_.reset();
  if (moving_ && dragged_) emit moved(now_ - from);
  if (!moving_ && !dragged_ && !adds()) choose({});
  if (!moving_ && dragged_ && outlines_) {
    const bool touched = (QApplication::keyboardModifiers() & Qt::ControlModifier) != 0;
    std::set<OutlineId> next = refine::wholeGroups(*outlines_, refine::encircled(*outlines_, drawnRound(), touched));
    if (adds()) next.insert(chosen_.begin(), chosen_.end());
    choose(std::move(next));
  }
  moving_ = false;
  emit changed();
}

void SelectTool::pressForMenu(Point place, const ToolView& view) {
  const auto hit = outlines_ ? outlineAt(*outlines_, upright(place, view), view.reach(), true) : std::nullopt;
  if (hit && chosen_.count(*hit) == 0) choose(refine::wholeGroups(*outlines_, {*hit}));
}

void SelectTool::doublePress(Point place, const ToolView& view) {
  const auto hit = outlines_ ? outlineAt(*outlines_, upright(place, view), view.reach(), true) : std::nullopt;
  if (hit) choose(refine::alike(*outlines_, {*hit}, refine::Likeness::Letter));
}

bool SelectTool::alone() { return (QApplication::keyboardModifiers() & Qt::AltModifier) != 0; }

bool SelectTool::nudge(Point step) {
  if (chosen_.empty()) return false;
  emit moved(nudgeBy(step));
  return true;
}

bool SelectTool::chooseNext() {
  if (!outlines_ || outlines_->outlines.empty()) return false;
  std::size_t next = 0;
  for (std::size_t i = 0; i < outlines_->outlines.size(); ++i) {
    if (chosen_.count(outlines_->outlines[i].id) != 0) next = (i + 1) % outlines_->outlines.size();
  }
  choose({outlines_->outlines[next].id});
  return true;
}

QString SelectTool::chosenText() const {
  if (chosen_.empty()) return {};
  return tr("%1 chosen").arg(counted(chosen_.size(), tr("1 outline"), tr("%1 outlines")));
}

bool SelectTool::leave() {
  if (chosen_.empty()) return false;
  choose({});
  return true;
}

Path SelectTool::drawnRound() const {
  if (lasso_) return polygonThrough(way_);
  Box box;
  box.include(way_.front());
  box.include(now_);
  return refine::roundedBox(box, 0);
}

}  // namespace rim::app
