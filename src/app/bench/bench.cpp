#include "app/bench/bench.h"

#include <QMimeData>
#include <QPainter>
#include <QScreen>
#include <cmath>

#include "app/bench/furniture.h"
#include "app/look.h"
#include "app/widgets/length_text.h"

namespace rim::app {
namespace {

constexpr double kMarginPx = 26;
constexpr double kFootPx = 40;  // room for legend and scale bar
constexpr double kPale = 0.16;  // what is left of the colours of inks that are not lit

}  // namespace

Bench::Bench(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAcceptDrops(true);
  setMinimumSize(320, 240);
  setAccessibleName(tr("Bench"));
  setAccessibleDescription(tr("The picture and its outlines. Arrow keys move the view, plus and minus zoom."));
}

void Bench::setPicture(const Picture& picture) { takePicture(picture, 1); }

void Bench::setPreview(const std::shared_ptr<const Preview>& preview) { takePicture(preview->picture, preview->scale); }

void Bench::takePicture(const Picture& picture, double scale) {
  const QSizeF before = picture_.size();
  const double rounding = picture_.pixelSize() + 1 / scale - 1.5;  // half a pixel when both are exact
  picture_.setPicture(picture, scale);
  const QSizeF change = picture_.size() - before;
  const bool sameSize = std::abs(change.width()) < rounding && std::abs(change.height()) < rounding;
  outlines_ = {};
  known_ = false;
  if (sameSize) {
    sceneChanged();
    return;
  }
  seam_ = 0.5;
  fit();
}

void Bench::setOriginal(const Picture& picture) { original_.setPicture(picture); }

void Bench::setInks(std::shared_ptr<const InkMap> inks) {
  if (inks == inks_) return;
  inks_ = std::move(inks);
  lit_ = -1;
  colourInks();
}

void Bench::lightInk(int ink) {
  if (ink == lit_) return;
  lit_ = ink;
  colourInks();
}

void Bench::colourInks() {
  inkLayer_.clear();
  if (inks_ && inks_->labels) {
    cv::Mat colours(1, 256, CV_8UC3, cv::Scalar(255, 255, 255));
    for (std::size_t i = 0; i < inks_->inks.size(); ++i) {
      const Rgb c = inks_->inks[i].colour;
      const double own = lit_ < 0 || lit_ == static_cast<int>(i) ? 1 : kPale;
      const auto channel = [own](int value) { return cv::saturate_cast<std::uint8_t>(255 - own * (255 - value)); };
      colours.at<cv::Vec3b>(0, static_cast<int>(i)) = {channel(c.b), channel(c.g), channel(c.r)};
    }
    inkLayer_.setInks(inks_->labels, colours);
  }
  sceneChanged();
}

void Bench::setPeekOriginal(bool on) {
  peekOriginal_ = on;
  sceneChanged();
}

void Bench::setOutlines(const std::shared_ptr<const Drawing>& tracing) {
  outlines_ = tracing ? OutlineLayer(*tracing) : OutlineLayer();
  known_ = tracing != nullptr;
  sceneChanged();
}

void Bench::setBorders(const std::vector<Border>& borders) {
  constexpr double kToleranceOnScreen = 0.3;
  outlines_ = OutlineLayer(borders, kToleranceOnScreen / viewport_.scale);
  known_ = true;
  sceneChanged();
}

void Bench::setReference(const std::shared_ptr<const Drawing>& reference) {
  reference_ = reference ? OutlineLayer(pathsOf(*reference)) : OutlineLayer();
  sceneChanged();
}

void Bench::setDeviation(std::shared_ptr<const Deviation> deviation, double tolerancePx) {
  deviation_.set(std::move(deviation), tolerancePx);
  sceneChanged();
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
  if (other && !page_.empty()) fit();
  sceneChanged();
}

void Bench::setFindings(std::shared_ptr<const std::vector<Finding>> findings, std::vector<std::size_t> shown) {
  findings_.set(std::move(findings), std::move(shown));
  sceneChanged();
}

void Bench::setSpecks(std::vector<Speck> specks) {
  specks_.set(std::move(specks));
  sceneChanged();
}

void Bench::setCurrentFinding(std::optional<std::size_t> current) {
  findings_.setCurrent(current);
  findings_.setPreview({});
  sceneChanged();
}

void Bench::setRepairPreview(RepairPreview preview) {
  findings_.setPreview(std::move(preview));
  sceneChanged();
}

void Bench::setStock(const Box& stock) {
  if (stock.low == stock_.low && stock.high == stock_.high) return;
  stock_ = stock;
  if (fitted_) fit();
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
  const QRectF area = QRectF(rect()).adjusted(kMarginPx, kMarginPx, -kMarginPx, -kMarginPx - kFootPx);
  Box all = pictureBox();
  all.include(stock_);
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

QRectF Bench::onScreen(const Box& box) const {
  return {viewport_.toScreen({box.low.x, box.high.y}), QSizeF(box.width(), box.height()) * viewport_.scale};
}

QRectF Bench::sheet() const { return onScreen(pictureBox()); }

double Bench::seamX() const { return sheet().left() + sheet().width() * seam_; }

bool Bench::overSeam(QPointF place) const {
  constexpr double kReach = 7;
  return compare_ == Compare::Seam && !bare() && std::abs(place.x() - seamX()) < kReach;
}

void Bench::sceneChanged() {
  scene_ = {};
  update();
}

void Bench::paintEvent(QPaintEvent*) {
  // What the pointer does not move is painted once.
  const QSize pixels = (QSizeF(size()) * devicePixelRatioF()).toSize();
  if (scene_.size() != pixels || sceneColour_ != look().bench) {
    scene_ = QPixmap(pixels);
    scene_.setDevicePixelRatio(devicePixelRatioF());
    sceneColour_ = look().bench;
    QPainter painter(&scene_);
    paintScene(painter);
  }
  QPainter painter(this);
  painter.drawPixmap(0, 0, scene_);
  if (bare() || showsOriginal()) return;
  painter.setRenderHint(QPainter::Antialiasing);
  if (tool_ != nullptr) tool_->paint(painter, toolView());
  painter.setRenderHint(QPainter::Antialiasing, false);
  paintFurniture(painter);
}

void Bench::paintScene(QPainter& painter) {
  painter.fillRect(rect(), look().bench);
  if (bare()) {
    paintSentence(painter, rect(), tr("The bench is empty"),
                  tr("Drop a picture or a drawing here, paste one, or open one with Ctrl+O. PNG, JPEG, BMP, GIF, TIFF, "
                     "WebP and PDF can be read, and drawings in SVG and DXF."));
    return;
  }
  if (showsOriginal()) {
    Box whole;
    whole.include(Point{0, 0});
    whole.include(Point{original_.size().width(), original_.size().height()});
    original_.paint(painter,
                    Viewport::fitting(whole, QRectF(rect()).adjusted(kMarginPx, kMarginPx, -kMarginPx, -kMarginPx)),
                    rect(), 1);
    return;
  }
  painter.fillRect(sheet(), look().sheet);
  if (peek_ || (tool_ != nullptr && !tool_->overOutlines())) {
    paintPicture(painter, 1);
  } else if (compare_ == Compare::Seam) {
    paintSeam(painter);
  } else {
    paintPicture(painter, compare_ == Compare::Overlay ? strength_ : 0);
    paintOutlines(painter);
  }
  painter.setPen(QPen(look().sheetEdge, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(sheet());
  paintStock(painter);
}

void Bench::paintStock(QPainter& painter) const {
  if (stock_.empty() || bare()) return;
  const QRectF stock = onScreen(stock_);
  constexpr double kDash = 9;
  constexpr double kSpace = 4;
  QPen pen(look().text, 1.5);
  pen.setDashPattern({kDash, kSpace, 2, kSpace});
  painter.setPen(pen);
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(stock);
  painter.setFont(fontLike(-1));
  const Box mm{stock_.low * mmPerPixel_, stock_.high * mmPerPixel_};
  painter.drawText(stock.bottomLeft() + QPointF(2, 14),
                   tr("stock %1 × %2").arg(lengthText(mm.width(), unit_), lengthWithUnit(mm.height(), unit_)));
}

void Bench::paintPicture(QPainter& painter, double strength) {
  const bool inks = !inkLayer_.empty() && !peek_ && inkLayer_.size() == picture_.size();
  // Inks are looked at for their colours: they show in full as soon as they show.
  (inks ? inkLayer_ : picture_).paint(painter, viewport_, rect(), inks && strength > 0 ? 1 : strength);
}

void Bench::paintOutlines(QPainter& painter) {
  reference_.paintAsReference(painter, viewport_, rect());
  // The inks themselves fill what is enclosed.
  outlines_.paint(painter, viewport_, rect(), inkLayer_.empty() || compare_ != Compare::Overlay);
  deviation_.paint(painter, viewport_, rect());
  specks_.paint(painter, viewport_, rect(), mmPerPixel_);
  findings_.paint(painter, viewport_, rect(), mmPerPixel_, unit_);
  if (nodes_ && !outlines_.paintNodes(painter, viewport_, rect())) {
    painter.setPen(look().text);
    painter.setFont(fontLike(0));
    painter.drawText(rect().adjusted(0, 10, 0, 0), Qt::AlignHCenter | Qt::AlignTop,
                     tr("Too many nodes in sight to show them: zoom in."));
  }
}

void Bench::paintSeam(QPainter& painter) {
  const double x = seamX();
  painter.save();
  painter.setClipRect(QRectF(0, 0, x, height()));
  paintPicture(painter, 1);
  painter.setClipRect(QRectF(x, 0, width() - x, height()));
  paintOutlines(painter);
  painter.restore();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(look().text, 1.5));
  painter.drawLine(QPointF(x, 0), QPointF(x, height()));
  // Stitches across the seam are its handle.
  for (int k = -2; k <= 2; ++k) {
    const double y = height() / 2.0 + k * 9;
    painter.setPen(QPen(look().panel, 5));
    painter.drawLine(QPointF(x - 8, y), QPointF(x + 8, y));
    painter.setPen(QPen(look().text, 2.5));
    painter.drawLine(QPointF(x - 7, y), QPointF(x + 7, y));
  }
}

void Bench::paintFurniture(QPainter& painter) {
  if (known_ && outlines_.empty() && !peek_ && tool_ == nullptr) {
    paintSentence(painter, rect(), tr("No outlines"),
                  tr("Nothing that is ink at this threshold is traced. Move the threshold, choose the automatic one, "
                     "change which part is the ink, or set another smallest part."));
  }
  constexpr double kScaleBarPx = 130;
  const QString hint = tool_ != nullptr ? tool_->hint() : QString();
  if (!hint.isEmpty()) {
    paintHint(painter, rect(), hint);
  } else {
    paintLegend(painter, rect(), deviation_.shown() ? deviation_.legend() : outlineLegend(outlines_.hasPenLines()));
  }
  paintScale(painter, rect(), scaleBarFor(viewport_.scale / mmPerPixel_, kScaleBarPx, unit_), pointerText());
}

QString Bench::pointerText() const {
  if (tool_ != nullptr && !tool_->chosenText().isEmpty()) return tool_->chosenText();
  if (!pointerInside_) return {};
  const Point p = viewport_.toPicture(pointer_) * mmPerPixel_;
  const int decimals = unit_ == Unit::Inch ? 3 : 2;
  const double k = unit_ == Unit::Inch ? 1 / kMmPerInch : 1;
  return tr("x %1  y %2").arg(p.x * k, 0, 'f', decimals).arg(p.y * k, 0, 'f', decimals);
}

}  // namespace rim::app
