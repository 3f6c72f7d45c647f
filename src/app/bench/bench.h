#pragma once

#include <QTimer>
#include <QWidget>
#include <memory>

#include "app/bench/bench_layer.h"
#include "app/bench/bench_tool.h"
#include "app/bench/outline_layer.h"
#include "app/bench/picture_layer.h"
#include "app/bench/scene.h"
#include "app/preferences.h"
#include "core/picture/preview.h"

class QMimeData;

namespace rim::app {

/// How picture and outlines are compared.
enum class Compare {
  Overlay,   ///< outlines over the picture
  Seam,      ///< the picture at the left of a movable border, the outlines at its right
  Outlines,  ///< outlines alone
};

/// The work surface: picture, outlines, and the layers and the tool that the rooms of the window lay on it, looked at
/// from near and far. It changes nothing.
class Bench : public QWidget {
  Q_OBJECT

 public:
  explicit Bench(QWidget* parent = nullptr);

  /// Puts another picture on the bench, without outlines; shows all of it unless it is as large as
  /// the one before.
  void setPicture(const picture::Picture& picture);
  /// The same with a picture that has fewer pixels than the one it stands for.
  void setPreview(const std::shared_ptr<const picture::Preview>& preview);
  /// The picture as it was opened, for setPeekOriginal().
  void setOriginal(const picture::Picture& picture);
  /// Areas in their colours in place of the picture: `labels` has a pixel's number, `colours` (1 x 256, BGR) what each
  /// number looks like; null: the picture.
  void setInks(const std::shared_ptr<const cv::Mat>& labels, const cv::Mat& colours);
  void setPeekOriginal(bool on);
  void setOutlines(const std::shared_ptr<const Drawing>& tracing);
  /// Borders that show until setOutlines() comes.
  void setBorders(const std::vector<trace::contour::Border>& borders);
  /// Lays something on the bench that stays until it is gone; the bench does not own it.
  void addLayer(BenchLayer* layer);
  void setMeasure(double mmPerPixel, Unit unit);
  /// The page that outlines lie on when there is no picture under them; empty: none.
  void setPage(const Box& page);
  /// A tool that gets the pointer until it is put away with null; the bench does not own it. While
  /// it is there, the picture is shown alone.
  void setTool(BenchTool* tool);

  Compare compare() const { return compare_; }
  void setCompare(Compare compare);
  void setStrength(double strength);
  void setNodes(bool shown);
  /// Shows the picture alone as long as it is on.
  void setPeek(bool on);
  bool peeks() const { return peek_; }

  /// A scene that is painted in turns is whole when this returns.
  void finishScene();
  bool isPainting() const { return scene_.works(); }

  const Viewport& viewport() const { return viewport_; }
  void fit();
  /// Screen pixels per picture pixel at which all is seen.
  double fittingScale() const;
  /// The outlines at the size they will have, as far as the screen knows its own resolution.
  void showAtTrueSize();
  void zoom(double factor);
  /// The place that is in the middle of the view, upright px.
  Point middle() const { return viewport_.toPicture(QRectF(rect()).center()); }
  /// Puts a place (upright pixels) in the middle, at `scale` screen pixels per picture pixel.
  void lookAt(Point place, double scale);

 signals:
  /// The second button, or the key for menus, over a tool.
  void menuWished(QPoint onScreen);
  void compareChanged(rim::app::Compare compare);
  /// At a place, upright px.
  void dropped(const QMimeData* data, rim::Point place);
  void zoomChanged(double percent);

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void takePicture(const picture::Picture& picture, double scale);
  enum class Drag { None, Pan, Seam, Tool, Layer };
  ToolView toolView() const;
  Box pictureBox() const;
  Viewport fitting() const;
  bool bare() const { return picture_.empty() && page_.empty(); }
  static QRectF onScreen(const Box& box, const Viewport& at);
  QRectF sheet(const Viewport& at) const { return onScreen(pictureBox(), at); }
  double seamX(const Viewport& at) const;
  QRectF withMargin() const;
  bool keyForTool(const QKeyEvent& event);
  bool overSeam(QPointF place) const;
  Qt::CursorShape restingCursor() const { return tool_ != nullptr ? tool_->cursor() : Qt::ArrowCursor; }
  void setViewport(const Viewport& viewport);
  void layerChanged();
  Box layersBox() const;
  /// Something other than the pointer moved: all is painted anew.
  void sceneChanged();
  bool showsOriginal() const { return peekOriginal_ && !original_.empty(); }
  void readyScene();
  void paintTurn();
  std::vector<Scene::Step> sceneSteps();
  Scene::Step pictureStep(double strength);
  std::vector<Scene::Step> outlineSteps();
  Scene::Step nodeStep();
  void addLayers(BenchLayer::Level level, std::vector<Scene::Step>& steps);
  LayerView layerView(const Viewport& at, const QRectF& visible) const;
  LayerView layerView() const { return layerView(viewport_, rect()); }
  /// Those in front before the tool, or those that lie over the outlines; the one on top first.
  std::vector<BenchLayer*> layersOn(BenchLayer::Level level) const;
  /// Whether one of them takes the press, and holds it from now on.
  bool pressLayer(BenchLayer::Level level);
  std::optional<Qt::CursorShape> layerCursor(BenchLayer::Level level) const;
  void addSeam(std::vector<Scene::Step>& steps);
  void paintInFront(QPainter& painter);
  void paintFurniture(QPainter& painter);
  QString pointerText() const;

  Scene scene_;   ///< picture and outlines as they are seen now
  QTimer turns_;  ///< in which it is painted when that takes long
  PictureLayer picture_;
  PictureLayer original_;
  PictureLayer inkLayer_;
  std::shared_ptr<const OutlineLayer> outlines_ = std::make_shared<const OutlineLayer>();
  /// Those that lay on the bench before, for when they come back, as by undo.
  std::vector<std::pair<std::weak_ptr<const Drawing>, std::shared_ptr<const OutlineLayer>>> recent_;
  std::vector<BenchLayer*> layers_;  ///< in the order in which they came
  Box layersBox_;                    ///< what of them wants to be in sight
  Box page_;
  std::shared_ptr<const Drawing> shown_;  ///< whose outlines they are; null of borders
  bool known_ = false;                    ///< outlines have been measured; there may be none
  Viewport viewport_;
  bool fitted_ = true;  ///< the view follows the size of the window until it is moved by hand
  Compare compare_ = Compare::Overlay;
  double strength_ = 0.55;
  double seam_ = 0.5;  ///< share of the picture's width
  bool nodes_ = false;
  bool peek_ = false;
  bool peekOriginal_ = false;
  BenchTool* tool_ = nullptr;
  Drag drag_ = Drag::None;
  BenchLayer* held_ = nullptr;                 ///< the layer that is dragged
  Qt::MouseButton dragButton_ = Qt::NoButton;  ///< that the drag began with and ends with
  QPointF pointer_;
  bool pointerInside_ = false;
  double mmPerPixel_ = 1;
  Unit unit_ = Unit::Millimetre;
};

}  // namespace rim::app
