#include "app/bench/furniture.h"

#include <QCoreApplication>
#include <QPainter>
#include <cmath>

#include "app/bench/outline_layer.h"
#include "app/look.h"
#include "app/widgets/length_text.h"

namespace rim::app {
namespace {

constexpr double kMargin = 12;

void paintPlate(QPainter& painter, const QRectF& area) {
  QColor back = look().panel;
  back.setAlpha(235);
  painter.setPen(QPen(look().line, 1));
  painter.setBrush(back);
  painter.drawRoundedRect(area, 5, 5);
}

QString text(const char* source) { return QCoreApplication::translate("Bench", source); }

}  // namespace

double roundAtMost(double most) {
  const double ten = std::pow(10, std::floor(std::log10(most)));
  return ten * (most / ten >= 5 ? 5 : most / ten >= 2 ? 2 : 1);
}

ScaleBar scaleBarFor(double screenPxPerMm, double mostPx, Unit unit) {
  const double perUnit = screenPxPerMm * (unit == Unit::Inch ? kMmPerInch : 1);
  if (!(perUnit > 0) || !std::isfinite(perUnit)) return {};
  const double length = roundAtMost(mostPx / perUnit);
  return {length * perUnit, QString::number(length, 'g', 4) + " " + unitName(unit)};
}

std::vector<std::pair<QPen, QString>> outlineLegend(bool withPenLines) {
  std::vector<std::pair<QPen, QString>> rows{
      {borderPen(), text("outer border")}, {holePen(), text("hole")}, {openPen(), text("open")}};
  if (withPenLines) rows.emplace_back(penLinePen(), text("middle of a stroke"));
  return rows;
}

QRectF plateFor(const QPainter& painter, QPointF corner, const QString& words) {
  return {corner, QSizeF(QFontMetricsF(fontLike(-1), painter.device()).horizontalAdvance(words) + 13, 20)};
}

QRectF paintWords(QPainter& painter, QPointF corner, const QString& words) {
  const QRectF plate = plateFor(painter, corner, words);
  painter.setFont(fontLike(-1));
  painter.setPen(Qt::NoPen);
  painter.setBrush(look().panel);
  painter.drawRoundedRect(plate, 4, 4);
  painter.setPen(look().text);
  painter.drawText(plate, Qt::AlignCenter, words);
  return plate;
}

void paintLegend(QPainter& painter, const QRectF& bench, const std::vector<std::pair<QPen, QString>>& rows) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(fontLike(-1));
  constexpr double kSample = 34;
  double width = 10;
  for (const auto& row : rows) width += kSample + 6 + painter.fontMetrics().horizontalAdvance(row.second) + 16;
  const QRectF plate(bench.left() + kMargin, bench.bottom() - kMargin - 28, width, 28);
  paintPlate(painter, plate);
  double x = plate.left() + 12;
  for (const auto& [pen, name] : rows) {
    painter.setPen(pen);
    painter.drawLine(QPointF(x, plate.center().y()), QPointF(x + kSample, plate.center().y()));
    x += kSample + 6;
    painter.setPen(look().text);
    const double advance = painter.fontMetrics().horizontalAdvance(name);
    painter.drawText(QRectF(x, plate.top(), advance + 4, plate.height()), Qt::AlignVCenter, name);
    x += advance + 16;
  }
  painter.restore();
}

void paintHint(QPainter& painter, const QRectF& bench, const QString& text) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(fontLike(-1));
  const double width = painter.fontMetrics().horizontalAdvance(text) + 26;
  const QRectF plate(bench.left() + kMargin, bench.bottom() - kMargin - 28, width, 28);
  paintPlate(painter, plate);
  painter.setPen(look().text);
  painter.drawText(plate.adjusted(12, 0, 0, 0), Qt::AlignVCenter, text);
  painter.restore();
}

void paintScale(QPainter& painter, const QRectF& bench, const ScaleBar& bar, const QString& pointer) {
  if (bar.screenPx <= 0) return;
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(fontLike(-1));
  const double place = pointer.isEmpty() ? 0 : painter.fontMetrics().horizontalAdvance(pointer) + 24;
  const double label = painter.fontMetrics().horizontalAdvance(bar.text) + 10;
  const double width = bar.screenPx + label + 24 + place;
  const QRectF plate(bench.right() - kMargin - width, bench.bottom() - kMargin - 28, width, 28);
  paintPlate(painter, plate);
  painter.setPen(look().text);
  if (!pointer.isEmpty())
    painter.drawText(QRectF(plate.left() + 12, plate.top(), place, plate.height()), Qt::AlignVCenter, pointer);
  const double y = plate.center().y();
  const double left = plate.right() - 12 - bar.screenPx - label;
  painter.setPen(QPen(look().text, 2));
  painter.drawLine(QPointF(left, y), QPointF(left + bar.screenPx, y));
  painter.drawLine(QPointF(left, y - 5), QPointF(left, y + 5));
  painter.drawLine(QPointF(left + bar.screenPx, y - 5), QPointF(left + bar.screenPx, y + 5));
  painter.drawText(QRectF(left + bar.screenPx + 8, plate.top(), label, plate.height()), Qt::AlignVCenter, bar.text);
  painter.restore();
}

void paintSentence(QPainter& painter, const QRectF& bench, const QString& title, const QString& sentence) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF plate(bench.center().x() - 230, bench.center().y() - 48, 460, 96);
  paintPlate(painter, plate);
  painter.setPen(look().text);
  painter.setFont(fontLike(3, QFont::Bold));
  painter.drawText(plate.adjusted(16, 12, -16, -54), Qt::AlignCenter, title);
  painter.setFont(fontLike(0));
  painter.setPen(look().quiet);
  painter.drawText(plate.adjusted(16, 42, -16, -10), Qt::AlignCenter | Qt::TextWordWrap, sentence);
  painter.restore();
}

}  // namespace rim::app
