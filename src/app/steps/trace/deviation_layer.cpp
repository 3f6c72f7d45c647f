#include "app/steps/trace/deviation_layer.h"

#include <QPainter>
#include <QPainterPath>

#include "app/bench/corner_brackets.h"
#include "app/look.h"

namespace rim::app {
namespace {

constexpr std::size_t kClasses = 3;
constexpr double kNearShare = 0.3;  // of the tolerance
constexpr double kBracketHalf = 15;

QPen penOf(std::size_t kind) {
  const std::pair<QColor, double> looks[kClasses] = {
      {look().border, 1.5}, {QColor(0xc98a00), 4}, {QColor(0x8e1f6b), 7}};
  QPen pen(looks[kind].first, looks[kind].second);
  pen.setCapStyle(Qt::FlatCap);
  return pen;
}

}  // namespace

void DeviationLayer::set(std::shared_ptr<const trace::Deviation> deviation, double tolerancePx) {
  if (deviation == deviation_ && tolerancePx == tolerance_) return;
  deviation_ = std::move(deviation);
  tolerance_ = tolerancePx;
  emit changed();
}

std::size_t DeviationLayer::classOf(double off) const {
  return off <= kNearShare * tolerance_ ? 0 : off <= tolerance_ ? 1 : 2;
}

void DeviationLayer::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  if (!deviation_) return;
  const Viewport& viewport = view.at;
  QPainterPath paths[kClasses];
  const QRectF near = view.visible.adjusted(-20, -20, 20, 20);
  for (const auto& [id, samples] : deviation_->outlines) {
    for (std::size_t i = 0; i < samples.size(); ++i) {
      const trace::DeviationSample& from = samples[i];
      const trace::DeviationSample& to = samples[(i + 1) % samples.size()];
      const QPointF a = viewport.toScreen(from.place);
      if (!near.contains(a)) continue;
      QPainterPath& path = paths[classOf(std::max(from.off, to.off))];
      if (path.currentPosition() != a || path.isEmpty()) path.moveTo(a);
      path.lineTo(viewport.toScreen(to.place));
    }
  }
  painter.setRenderHint(QPainter::Antialiasing);
  for (std::size_t kind = 0; kind < kClasses; ++kind) painter.strokePath(paths[kind], penOf(kind));
  if (deviation_->largest > 0) paintBrackets(painter, viewport.toScreen(deviation_->worst), kBracketHalf, look().node);
}

std::vector<std::pair<QPen, QString>> DeviationLayer::legend() const {
  if (!deviation_) return {};
  const auto text = [](const char* source) { return tr(source); };
  const auto px = [](double value) { return QString::number(value, 'f', 2); };
  return {{penOf(0), text("up to %1 px off").arg(px(kNearShare * tolerance_))},
          {penOf(1), text("to %1").arg(px(tolerance_))},
          {penOf(2), text("more")}};
}

}  // namespace rim::app
