#include "app/steps/refine/sheet_layers.h"

#include <QPainter>
#include <cmath>

#include "app/look.h"
#include "app/widgets/length_text.h"

namespace rim::app {

void StockLayer::set(const Box& stock) {
  if (stock.low == stock_.low && stock.high == stock_.high) return;
  stock_ = stock;
  emit changed();
}

void StockLayer::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  if (stock_.empty()) return;
  const QRectF stock(view.at.toScreen({stock_.low.x, stock_.high.y}),
                     QSizeF(stock_.width(), stock_.height()) * view.at.scale);
  constexpr double kDash = 9;
  constexpr double kSpace = 4;
  QPen pen(look().text, 1.5);
  pen.setDashPattern({kDash, kSpace, 2, kSpace});
  painter.setPen(pen);
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(stock);
  painter.setFont(fontLike(-1));
  const Box mm{stock_.low * view.mmPerPixel, stock_.high * view.mmPerPixel};
  painter.drawText(stock.bottomLeft() + QPointF(2, 14),
                   tr("stock %1 × %2").arg(lengthText(mm.width(), view.unit), lengthWithUnit(mm.height(), view.unit)));
}

void GridLayer::set(double step) {
  if (step == step_) return;
  step_ = step;
  emit changed();
}

void GridLayer::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  if (step_ <= 0) return;
  constexpr double kLeastPx = 7;  // nearer lines would be a grey wash: every fifth or tenth then
  double step = step_;
  for (const double more : {5.0, 2.0, 5.0, 2.0, 5.0, 2.0}) {
    if (step * view.at.scale < kLeastPx) step *= more;
  }
  if (step * view.at.scale < kLeastPx) return;
  constexpr int kFaint = 70;
  QColor colour = look().quiet;
  colour.setAlpha(kFaint);
  painter.setPen(QPen(colour, 1));
  const Point low = view.at.toPicture(view.visible.bottomLeft());
  const Point high = view.at.toPicture(view.visible.topRight());
  for (double k = std::ceil(low.x / step); k * step <= high.x; ++k) {
    const double x = view.at.toScreen({k * step, 0}).x();
    painter.drawLine(QPointF(x, view.visible.top()), QPointF(x, view.visible.bottom()));
  }
  for (double k = std::ceil(low.y / step); k * step <= high.y; ++k) {
    const double y = view.at.toScreen({0, k * step}).y();
    painter.drawLine(QPointF(view.visible.left(), y), QPointF(view.visible.right(), y));
  }
}

}  // namespace rim::app
