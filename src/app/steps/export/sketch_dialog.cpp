#include "app/steps/export/sketch_dialog.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/steps/export/solid_view.h"
#include "app/widgets/counted.h"
#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"
#include "core/io/stl.h"

namespace rim::app {
namespace {

constexpr double kChordMm = 0.01;
constexpr double kThinnestMm = 0.001;
constexpr double kThickestMm = 100'000;

}  // namespace

SketchDialog::SketchDialog(Drawing drawing, const QString& name, Unit unit, QWidget* parent)
    : QDialog(parent), drawing_(std::move(drawing)), name_(name), unit_(unit) {
  setWindowTitle(tr("Sketch check"));
  setObjectName("sketchDialog");
  auto* column = new QVBoxLayout(this);
  view_ = new SolidView;
  column->addWidget(view_, 1);
  thickness_ = new LengthField;
  thickness_->setObjectName("thickness");
  thickness_->setRange(kThinnestMm, kThickestMm);
  thickness_->show(thicknessMm_, unit_);
  addRow(column, tr("&Thickness"), thickness_, tr("How far the closed outlines are pulled up"),
         new QLabel(unitName(unit_)));
  text_ = addText(column);
  text_->setObjectName("sketchText");
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  save_ = buttons->addButton(tr("&Save the solid…"), QDialogButtonBox::ActionRole);
  save_->setObjectName("saveSolid");
  save_->setToolTip(tr("As an STL file, in millimetres"));
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(save_, &QPushButton::clicked, this, &SketchDialog::askAndSave);
  connect(thickness_, &LengthField::refused, text_, &QLabel::setText);
  connect(thickness_, &LengthField::entered, this, [this](double mm) {
    thicknessMm_ = mm;
    work();
  });
  work();
}

SketchDialog::~SketchDialog() = default;

/// Beside the window: a drawing of many nodes takes a while.
void SketchDialog::work() {
  ready_ = false;
  save_->setEnabled(false);
  text_->setText(tr("Looking at what can be extruded…"));
  struct Made {
    sketch::Sketch sketch;
    sketch::Solid solid;
  };
  const auto make = [drawing = drawing_, mm = thicknessMm_](const std::stop_token& stop) {
    Made made{sketch::sketchOf(drawing, stop), {}};
    if (!made.sketch.profiles.empty()) made.solid = sketch::extruded(drawing, made.sketch, mm, kChordMm);
    return made;
  };
  working_.begin(this, make, [this](Outcome<Made> got) {
    if (!got.trouble.isEmpty()) {
      text_->setText(got.trouble);
      return;
    }
    sketch_ = std::move(got.result.sketch);
    solid_ = std::move(got.result.solid);
    view_->setSolid(solid_);
    ready_ = true;
    save_->setEnabled(!solid_.triangles.empty());
    tell();
  });
}

void SketchDialog::tell() {
  std::size_t holes = 0;
  double area = 0;
  for (const sketch::Profile& profile : sketch_.profiles) {
    holes += profile.holes.size();
    area += profile.areaMm2;
  }
  QStringList lines;
  lines << tr("%1, %2").arg(counted(sketch_.profiles.size(), tr("1 profile"), tr("%1 profiles")),
                            counted(holes, tr("1 hole"), tr("%1 holes")));
  lines << tr("%1 mm² of area, %2 cm³ of volume").arg(area, 0, 'f', 1).arg(area * thicknessMm_ / 1000, 0, 'f', 3);
  std::size_t open = 0;
  for (const sketch::UnfitOutline& unfit : sketch_.unfit) open += unfit.why == sketch::Unfit::Open ? 1 : 0;
  const std::size_t crossing = sketch_.unfit.size() - open;
  if (open > 0)
    lines << counted(open, tr("1 outline is open and was left out"), tr("%1 outlines are open and were left out"));
  if (crossing > 0)
    lines << counted(crossing, tr("1 outline crosses itself or another and was left out"),
                     tr("%1 outlines cross themselves or others and were left out"));
  text_->setText(lines.join("\n"));
}

bool SketchDialog::save(const QString& file) {
  const auto done = outcomeOf([&] {
    io::writeStl(solid_, file.toStdString());
    return true;
  });
  text_->setText(done.trouble.isEmpty() ? tr("%1 is written.").arg(QFileInfo(file).fileName())
                                        : tr("%1: %2").arg(QFileInfo(file).fileName(), done.trouble));
  return done.trouble.isEmpty();
}

void SketchDialog::askAndSave() {
  QString file = QFileDialog::getSaveFileName(this, tr("Save the solid"), name_ + ".stl", tr("STL (*.stl)"));
  if (file.isEmpty()) return;
  if (!file.endsWith(".stl", Qt::CaseInsensitive)) file += ".stl";
  save(file);
}

}  // namespace rim::app
