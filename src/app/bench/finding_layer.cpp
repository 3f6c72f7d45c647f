#include "app/bench/finding_layer.h"

#include <QPainter>
#include <QPainterPath>

#include "app/bench/corner_brackets.h"
#include "app/bench/outline_layer.h"
#include "app/look.h"
#include "app/widgets/length_text.h"

namespace rim::app {
namespace {

const QPointF kTagOffset(16, -24);  // of the tag's middle from the place it points at
constexpr double kTagHeight = 18;

QRectF tagAt(QPointF place, std::size_t number) {
  constexpr double kDigit = 7;
  const double width = 12 + kDigit * static_cast<double>(QString::number(number + 1).size());
  return {place.x() + kTagOffset.x() - width / 2, place.y() + kTagOffset.y() - kTagHeight / 2, width, kTagHeight};
}

void paintTag(QPainter& painter, QPointF place, std::size_t number, bool current) {
  const QRectF tag = tagAt(place, number);
  QPainterPath shape;
  shape.addRoundedRect(tag, 4, 4);
  QPainterPath pointer(place);
  pointer.lineTo(tag.left() + 3, tag.bottom() - 5);
  pointer.lineTo(tag.left() + 9, tag.bottom() - 0.5);
  pointer.closeSubpath();
  shape = shape.united(pointer);
  painter.setPen(QPen(current ? look().text : look().node, 1.2));
  painter.setBrush(current ? look().warning : look().raised);
  painter.drawPath(shape);
  painter.setPen(current ? look().onAccent : look().text);
  painter.setFont(fontLike(-2, QFont::Bold));
  painter.drawText(tag, Qt::AlignCenter, QString::number(number + 1));
}

/// A length written between two arrows that point at each other's tails, as on a drawing.
void paintDimension(QPainter& painter, QPointF place, const QString& text) {
  painter.setFont(fontLike(-1, QFont::Bold));
  const double width = painter.fontMetrics().horizontalAdvance(text) + 14;
  const QRectF plate(place.x() - width / 2, place.y() + 24, width, 20);
  painter.setPen(QPen(look().line, 1));
  painter.setBrush(look().panel);
  painter.drawRoundedRect(plate, 4, 4);
  painter.setPen(look().text);
  painter.drawText(plate, Qt::AlignCenter, text);
}

}  // namespace

void FindingLayer::set(std::shared_ptr<const std::vector<mend::Finding>> findings, std::vector<std::size_t> shown) {
  if (!findings) shown.clear();
  if (findings == findings_ && shown == shown_) return;
  findings_ = std::move(findings);
  shown_ = std::move(shown);
  if (current_ && *current_ >= shown_.size()) current_.reset();
  emit changed();
}

void FindingLayer::setCurrent(std::optional<std::size_t> current) {
  if (current && *current >= shown_.size()) current.reset();
  if (current == current_) return;
  current_ = current;
  emit changed();
}

void FindingLayer::setPreview(RepairPreview preview) {
  if (preview.showsNothing() && preview_.showsNothing()) return;
  preview_ = std::move(preview);
  emit changed();
}

QPointF FindingLayer::placeOf(std::size_t number, const LayerView& view) const {
  return view.at.toScreen((*findings_)[shown_[number]].at * (1 / view.mmPerPixel));
}

void FindingLayer::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  painter.setRenderHint(QPainter::Antialiasing);
  paintPreview(painter, view);
  if (shown_.empty()) return;
  paintTags(painter, view);
  if (current_) paintCurrent(painter, view);
}

void FindingLayer::paintPreview(QPainter& painter, const LayerView& view) const {
  if (!preview_.goes.empty()) OutlineLayer(preview_.goes).paintAsGone(painter, view.at, view.visible);
  if (!preview_.comes.empty()) OutlineLayer(preview_.comes).paintAsPreview(painter, view.at, view.visible);
  QPen axis(look().node, 1.5);
  axis.setDashPattern({14, 4, 2, 4});
  painter.setPen(axis);
  for (const auto& [from, to] : preview_.axes) painter.drawLine(view.at.toScreen(from), view.at.toScreen(to));
  constexpr double kMarkHalf = 12;
  if (preview_.most) paintBrackets(painter, view.at.toScreen(*preview_.most), kMarkHalf, look().node);
}

void FindingLayer::paintTags(QPainter& painter, const LayerView& view) const {
  const QRectF near = view.visible.adjusted(-40, -40, 40, 40);
  // Where tags lie on each other the first one is enough: the list names them all.
  constexpr std::size_t kMostTags = 400;
  std::vector<QPointF> used;
  for (std::size_t i = 0; i < shown_.size() && used.size() < kMostTags; ++i) {
    const QPointF place = placeOf(i, view);
    const bool free = near.contains(place) && std::none_of(used.begin(), used.end(), [place](QPointF p) {
                        return std::abs(p.x() - place.x()) < 22 && std::abs(p.y() - place.y()) < 18;
                      });
    if (!free || i == current_) continue;
    used.push_back(place);
    paintTag(painter, place, i, false);
  }
}

void FindingLayer::paintCurrent(QPainter& painter, const LayerView& view) const {
  const mend::Finding& finding = (*findings_)[shown_[*current_]];
  const QPointF place = placeOf(*current_, view);
  const double onScreen = finding.sizeMm / view.mmPerPixel * view.at.scale;
  const bool gap = finding.kind == mend::FindingKind::OpenEnd && !finding.repair.empty();
  constexpr double kLeastHalf = 17;
  constexpr double kMostHalf = 90;
  paintBrackets(painter, place, gap ? std::clamp(onScreen / 2 + 8, kLeastHalf, kMostHalf) : kLeastHalf, look().node);
  constexpr double kNothingMm = 0.0005;
  if (gap && finding.sizeMm > kNothingMm) paintDimension(painter, place, lengthWithUnit(finding.sizeMm, view.unit));
  paintTag(painter, place, *current_, true);
}

bool FindingLayer::press(QPointF screen, const LayerView& view) {
  for (std::size_t i = 0; i < shown_.size(); ++i) {
    if (!tagAt(placeOf(i, view), i).adjusted(-3, -3, 3, 3).contains(screen)) continue;
    emit pressed(i);
    return true;
  }
  return false;
}

}  // namespace rim::app
