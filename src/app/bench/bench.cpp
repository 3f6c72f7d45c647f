#include "app/bench/bench.h"

#include <QMimeData>
#include <QScreen>
#include <algorithm>
#include <cmath>

#include "app/bench/changed_area.h"
#include "app/look.h"

namespace rim::app {
namespace {

constexpr double kMarginPx = 26;
constexpr double kFootPx = 40;  // room for legend and scale bar
// Room for the rules whether they show or not: the picture stays where it is, and a drag may begin beside it.
constexpr double kRulePx = 20;

}  // namespace

Bench::Bench(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAcceptDrops(true);
  setMinimumSize(320, 240);
  setAccessibleName(tr("Bench"));
  turns_.setInterval(0);
  connect(&turns_, &QTimer::timeout, this, &Bench::paintTurn);
  setAccessibleDescription(tr("The picture and its outlines. Arrow keys move the view, plus and minus zoom."));
}

void Bench::setPicture(const picture::Picture& picture) { takePicture(picture, 1); }

void Bench::setPreview(const std::shared_ptr<const picture::Preview>& preview) {
  takePicture(preview->picture, preview->scale);
}

void Bench::takePicture(const picture::Picture& picture, double scale) {
  const QSizeF before = picture_.size();
  const double rounding = picture_.pixelSize() + 1 / scale - 1.5;  // half a pixel when both are exact
  picture_.setPicture(picture, scale);
  const QSizeF change = picture_.size() - before;
  const bool sameSize = std::abs(change.width()) < rounding && std::abs(change.height()) < rounding;
  outlines_ = std::make_shared<const OutlineLayer>();
  known_ = false;
  shown_.reset();
  if (sameSize) {
    sceneChanged();
    return;
  }
  seam_ = 0.5;
  scene_.forget();
  fit();
}

void Bench::setOriginal(const picture::Picture& picture) { original_.setPicture(picture); }

void Bench::setInks(const std::shared_ptr<const cv::Mat>& labels, const cv::Mat& colours) {
  inkLayer_.clear();
  if (labels) inkLayer_.setInks(labels, colours);
  sceneChanged();
}

void Bench::setPeekOriginal(bool on) {
  peekOriginal_ = on;
  sceneChanged();
}

void Bench::setOutlines(const std::shared_ptr<const Drawing>& tracing) {
  const auto known = std::find_if(recent_.begin(), recent_.end(),
                                  [&tracing](const auto& one) { return tracing && one.first.lock() == tracing; });
  if (known != recent_.end()) {
    if (known->second == outlines_ && known_) return;
    outlines_ = known->second;
  } else {
    outlines_ = tracing ? std::make_shared<const OutlineLayer>(*tracing) : std::make_shared<const OutlineLayer>();
    constexpr std::size_t kRecent = 3;
    if (recent_.size() == kRecent) recent_.erase(recent_.begin());
    if (tracing) recent_.emplace_back(tracing, outlines_);
  }
  std::optional<Box> area;
  if (known_ && shown_ && tracing) area = changedArea(*shown_, *tracing);
  known_ = tracing != nullptr;
  shown_ = tracing;
  if (!area) {
    sceneChanged();
  } else if (!area->empty()) {
    // Grown a little: the box of a straight outline has no width.
    scene_.outdateWithin(QRectF(area->low.x, area->low.y, area->width(), area->height()).adjusted(-1, -1, 1, 1));
    update();
  }
}

void Bench::setBorders(const std::vector<trace::contour::Border>& borders) {
  constexpr double kToleranceOnScreen = 0.3;
  outlines_ = std::make_shared<const OutlineLayer>(borders, kToleranceOnScreen / viewport_.scale);
  known_ = true;
  shown_.reset();
  sceneChanged();
}

void Bench::addLayer(BenchLayer* layer) {
  layers_.push_back(layer);
  if (layer->level() == BenchLayer::Level::InFront) {
    connect(layer, &BenchLayer::changed, this, qOverload<>(&QWidget::update));
  } else {
    connect(layer, &BenchLayer::changed, this, &Bench::layerChanged);
  }
  connect(layer, &QObject::destroyed, this, [this, layer] {
    std::erase(layers_, layer);
    if (held_ == layer) held_ = nullptr;
    sceneChanged();
  });
}

/// What wants to be in sight may be more now, or less.
void Bench::layerChanged() {
  const Box wanted = layersBox();
  const bool same = wanted.low == layersBox_.low && wanted.high == layersBox_.high;
  layersBox_ = wanted;
  if (!same && fitted_) fit();
  sceneChanged();
}

Box Bench::layersBox() const {
  Box box;
  for (const BenchLayer* layer : layers_) box.include(layer->extent());
  return box;
}

void Bench::setMeasure(double mmPerPixel, Unit unit) {
  if (mmPerPixel == mmPerPixel_ && unit == unit_) return;
  mmPerPixel_ = mmPerPixel;
  unit_ = unit;
  sceneChanged();
}

void Bench::setPage(const Box& page) {
  const bool other = !(page.low == page_.low && page.high == page_.high);
  page_ = page;
  if (!page_.empty()) picture_ = {};
  if (other) scene_.forget();
  if (other && !page_.empty()) fit();
  sceneChanged();
}

void Bench::setTool(BenchTool* tool) {
  if (tool_ != nullptr) disconnect(tool_, nullptr, this, nullptr);
  tool_ = tool;
  if (tool_ != nullptr) {
    connect(tool_, &BenchTool::changed, this, qOverload<>(&QWidget::update));
    setFocus();
  }
  drag_ = Drag::None;
  setCursor(restingCursor());
  sceneChanged();
}

ToolView Bench::toolView() const { return {viewport_, picture_.size().height()}; }

void Bench::setCompare(Compare compare) {
  if (compare == compare_) return;
  compare_ = compare;
  emit compareChanged(compare);
  sceneChanged();
}

void Bench::setStrength(double strength) {
  strength_ = strength;
  sceneChanged();
}

void Bench::setNodes(bool shown) {
  nodes_ = shown;
  sceneChanged();
}

void Bench::setPeek(bool on) {
  peek_ = on;
  sceneChanged();
}

Viewport Bench::fitting() const {
  const QRectF area = withMargin().adjusted(0, 0, 0, -kFootPx);
  Box all = pictureBox();
  all.include(layersBox());
  return Viewport::fitting(all, area);
}

double Bench::fittingScale() const { return fitting().scale; }

void Bench::fit() {
  setViewport(fitting());
  fitted_ = true;
}

void Bench::showAtTrueSize() {
  if (bare()) return;
  const double screenPxPerMm = screen()->physicalDotsPerInch() / kMmPerInch;
  setViewport(viewport_.zoomedAt(QRectF(rect()).center(), screenPxPerMm * mmPerPixel_ / viewport_.scale));
}

void Bench::zoom(double factor) {
  const QPointF fixed = pointerInside_ ? pointer_ : QRectF(rect()).center();
  setViewport(viewport_.zoomedAt(fixed, factor));
}

void Bench::lookAt(Point place, double scale) {
  Box spot;
  spot.include(place);
  setViewport(Viewport::fitting(spot, rect()));
  setViewport(viewport_.zoomedAt(QRectF(rect()).center(), scale / viewport_.scale));
}

void Bench::setViewport(const Viewport& viewport) {
  viewport_ = viewport;
  fitted_ = false;
  emit zoomChanged(viewport.scale * 100);
  sceneChanged();
}

Box Bench::pictureBox() const {
  Box box = page_;
  if (picture_.empty()) return box;
  box = {};
  box.include(Point{0, 0});
  box.include(Point{picture_.size().width(), picture_.size().height()});
  return box;
}

QRectF Bench::onScreen(const Box& box, const Viewport& at) {
  return {at.toScreen({box.low.x, box.high.y}), QSizeF(box.width(), box.height()) * at.scale};
}

double Bench::seamX(const Viewport& at) const { return sheet(at).left() + sheet(at).width() * seam_; }

QRectF Bench::withMargin() const {
  return QRectF(rect()).adjusted(kMarginPx + kRulePx, kMarginPx + kRulePx, -kMarginPx, -kMarginPx);
}

bool Bench::overSeam(QPointF place) const {
  constexpr double kReach = 7;
  return compare_ == Compare::Seam && !bare() && std::abs(place.x() - seamX(viewport_)) < kReach;
}

}  // namespace rim::app
