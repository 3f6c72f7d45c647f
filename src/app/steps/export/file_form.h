#pragma once

#include <QWidget>

#include "app/preferences.h"
#include "app/steps/export/presets.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;

namespace rim::app {

class LengthField;

/// Asks what file is wanted: for what machine, of what kind, made of what, how its outlines lie in it.
class FileForm : public QWidget {
  Q_OBJECT

 public:
  explicit FileForm(QWidget* parent = nullptr);

  /// What there is that a file can be made of.
  struct About {
    bool layers = false;  ///< more than one
    bool note = false;    ///< of origin
    bool stock = false;
    double toleranceMm = 0;  ///< within which curves become arcs or lines where nothing else is wished
    friend bool operator==(const About&, const About&) = default;
  };
  void show(const job::FileWish& wish, const About& about, Unit unit);
  const job::FileWish& wish() const { return wish_; }

 signals:
  /// Something was chosen.
  void wished(const rim::job::FileWish& wish);
  void refused(const QString& sentence);

 private:
  void buildPreset();
  void buildRows();
  void buildLengths();
  void listForms();
  void listPresets();
  void namePreset();
  void take();
  void keepAsPreset();

  /// What show() showed last; it is called with every change of the job.
  struct Shown {
    job::FileWish wish;
    About about;
    Unit unit;
    friend bool operator==(const Shown&, const Shown&) = default;
  };
  std::optional<Shown> shown_;
  job::FileWish wish_;
  bool filling_ = false;  ///< while the form shows something, nothing is chosen by anybody
  QComboBox* preset_;
  QPushButton* keep_;
  QComboBox* kind_;
  QComboBox* form_;
  QComboBox* unit_;
  QComboBox* origin_;
  QCheckBox* ofStock_;
  QComboBox* page_;
  LengthField* margin_;
  QWidget* marginRow_;
  LengthField* within_;
  QWidget* withinRow_;
  LengthField* cutter_;
  QLabel* cutterUnit_;
  QComboBox* look_;
  QComboBox* element_;
  QComboBox* layers_;
  QWidget* lookRow_;
  QWidget* elementRow_;
  QCheckBox* note_;
  QCheckBox* fileEach_;
  double marginMm_ = 0;
  double cutterMm_ = 0;
  double withinMm_ = 0;
};

}  // namespace rim::app
