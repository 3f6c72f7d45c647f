#include "app/start/practice_camera_dialog.h"

#include <QBuffer>
#include <QComboBox>
#include <QFile>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QImage>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>
#include <span>

#include "app/widgets/panel_parts.h"
#include "core/picture/load.h"

namespace rim::app {
namespace {

constexpr int kFinderWidth = 520;
constexpr double kTenths = 10;

QImage imageOf(const picture::Picture& picture) {
  const cv::Mat& bgr = *picture.bgr;
  return QImage(bgr.data, bgr.cols, bgr.rows, static_cast<qsizetype>(bgr.step), QImage::Format_BGR888).copy();
}

}  // namespace

PracticeCameraDialog::PracticeCameraDialog(QWidget* parent) : QDialog(parent) {
  setWindowTitle(tr("Practice camera"));
  setObjectName("practiceCamera");
  auto* columns = new QHBoxLayout;
  finder_ = new QLabel;
  finder_->setFixedSize(kFinderWidth, kFinderWidth * 3 / 4);
  finder_->setAccessibleName(tr("What the camera sees"));
  columns->addWidget(finder_);
  auto* form = new QFormLayout;
  drawings_ = new QComboBox;
  drawings_->addItem(tr("Window card"), "window-card.png");
  drawings_->addItem(tr("Weather vane"), "weather-vane.png");
  drawings_->addItem(tr("Badge"), "badge.png");
  drawings_->setAccessibleName(tr("Drawing"));
  form->addRow(tr("&Drawing"), drawings_);
  const picture::PracticeShot usual;
  tilt_ = addSlider(form, tr("Leans &back"), -50, 50, static_cast<int>(usual.tiltDegrees), "°");
  pan_ = addSlider(form, tr("Turns &aside"), -50, 50, static_cast<int>(usual.panDegrees), "°");
  roll_ = addSlider(form, tr("Held &askew"), -45, 45, static_cast<int>(usual.rollDegrees), "°");
  light_ = addSlider(form, tr("&Light lost"), 0, 90, static_cast<int>(usual.lightFall * 100), " %");
  blur_ = addSlider(form, tr("Out of &focus"), 0, 50, static_cast<int>(usual.blurPx * kTenths), tr(" tenths of a px"));
  noise_ = addSlider(form, tr("&Noise"), 0, 40, static_cast<int>(usual.noiseLevels), tr(" levels"));
  fabric_ = addSlider(form, tr("Fa&bric"), 0, 50, static_cast<int>(usual.fabricDepth * 100), " %");
  columns->addLayout(form);
  auto* rows = new QVBoxLayout(this);
  auto* about = new QLabel(
      tr("A made-up phone takes a made-up drawing: learn the way from a photo to outlines without a camera."));
  about->setProperty("role", "quiet");
  rows->addWidget(about);
  rows->addLayout(columns);
  addAnswers(this, rows, tr("&Take the photo"))->setObjectName("takePhoto");
  connect(drawings_, &QComboBox::currentIndexChanged, this, &PracticeCameraDialog::loadDrawing);
  loadDrawing();
}

QSlider* PracticeCameraDialog::addSlider(QFormLayout* form, const QString& name, int low, int high, int value,
                                         const QString& unit) {
  auto* slider = new QSlider(Qt::Horizontal);
  slider->setRange(low, high);
  slider->setValue(value);
  slider->setMinimumWidth(150);
  slider->setAccessibleName(QString(name).remove('&'));
  slider->setToolTip(QString::number(value) + unit);
  form->addRow(name, slider);
  connect(slider, &QSlider::valueChanged, this, [this, slider, unit](int now) {
    slider->setToolTip(QString::number(now) + unit);
    preview();
  });
  return slider;
}

void PracticeCameraDialog::loadDrawing() {
  QFile file(":/demo/" + drawings_->currentData().toString());
  if (!file.open(QIODevice::ReadOnly)) return;
  const QByteArray bytes = file.readAll();
  drawing_ = picture::loadPicture(std::as_bytes(std::span(bytes.constData(), static_cast<std::size_t>(bytes.size()))),
                                  "drawing");
  preview();
}

picture::PracticeShot PracticeCameraDialog::shot() const {
  picture::PracticeShot shot;
  shot.tiltDegrees = tilt_->value();
  shot.panDegrees = pan_->value();
  shot.rollDegrees = roll_->value();
  shot.lightFall = light_->value() / 100.0;
  shot.blurPx = blur_->value() / kTenths;
  shot.noiseLevels = noise_->value();
  shot.fabricDepth = fabric_->value() / 100.0;
  return shot;
}

void PracticeCameraDialog::preview() {
  if (drawing_.empty()) return;
  picture::PracticeShot small = shot();
  // The finder is smaller than the photo; what is blurred by a pixel there is blurred by less here.
  small.blurPx *= kFinderWidth / static_cast<double>(small.widthPx);
  small.widthPx = kFinderWidth;
  finder_->setPixmap(QPixmap::fromImage(imageOf(picture::takePracticePhoto(drawing_, small).picture)));
}

QByteArray PracticeCameraDialog::photo() const {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  constexpr int kQuickly = 100;
  if (!drawing_.empty()) imageOf(picture::takePracticePhoto(drawing_, shot()).picture).save(&buffer, "PNG", kQuickly);
  return bytes;
}

QString PracticeCameraDialog::photoName() const {
  return QStringLiteral("practice-") + drawings_->currentData().toString();
}

}  // namespace rim::app
