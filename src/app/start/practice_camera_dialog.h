#pragma once

#include <QDialog>

#include "core/picture/practice_camera.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QSlider;

namespace rim::app {

/// A simulated phone that photographs a drawing that ships with the application.
class PracticeCameraDialog : public QDialog {
  Q_OBJECT

 public:
  explicit PracticeCameraDialog(QWidget* parent = nullptr);

  picture::PracticeShot shot() const;
  /// The photo as a PNG file, and what to call it.
  QByteArray photo() const;
  QString photoName() const;

 private:
  QSlider* addSlider(QFormLayout* form, const QString& name, int low, int high, int value, const QString& unit);
  void loadDrawing();
  void preview();

  picture::Picture drawing_;
  QComboBox* drawings_;
  QLabel* finder_;
  QSlider* tilt_;
  QSlider* pan_;
  QSlider* roll_;
  QSlider* light_;
  QSlider* blur_;
  QSlider* noise_;
  QSlider* fabric_;
};

}  // namespace rim::app
