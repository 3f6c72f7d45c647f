#include "app/steps/export/file_form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QStandardItemModel>
#include <QVBoxLayout>

#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

constexpr double kMostMarginMm = 10'000;
constexpr double kFirstMarginMm = 5;
constexpr double kMostCutterMm = 100;
constexpr double kMostWithinMm = 10;
enum Page { kAsItIs, kArtwork, kStock };
enum LookOf { kByItself, kHairlines, kFilled };

void allowItem(const QComboBox& box, int item, bool allowed) {
  static_cast<QStandardItemModel*>(box.model())->item(item)->setEnabled(allowed);
}

}  // namespace

FileForm::FileForm(QWidget* parent) : QWidget(parent) {
  partLayout(this);
  buildPreset();
  buildRows();
  listPresets();
  listForms();
  for (QComboBox* box : {kind_, form_, unit_, origin_, page_, look_, element_, layers_}) {
    connect(box, &QComboBox::currentIndexChanged, this, [this, box] {
      if (box == kind_) listForms();
      if (box == page_ && page_->currentIndex() == kArtwork && marginMm_ <= 0) marginMm_ = kFirstMarginMm;
      take();
    });
  }
  for (QCheckBox* box : {note_, fileEach_, ofStock_}) connect(box, &QCheckBox::toggled, this, &FileForm::take);
}

void FileForm::buildLengths() {
  const auto field = [this](const char* name, double mostMm, double FileForm::*into) {
    auto* one = new LengthField;
    one->setObjectName(name);
    one->setRange(0, mostMm);
    connect(one, &LengthField::refused, this, &FileForm::refused);
    connect(one, &LengthField::entered, this, [this, into](double mm) {
      this->*into = mm;
      take();
    });
    return one;
  };
  margin_ = field("margin", kMostMarginMm, &FileForm::marginMm_);
  cutter_ = field("cutter", kMostCutterMm, &FileForm::cutterMm_);
  within_ = field("fileWithin", kMostWithinMm, &FileForm::withinMm_);
  cutterUnit_ = new QLabel;
}

void FileForm::buildPreset() {
  preset_ = new QComboBox;
  preset_->setObjectName("preset");
  keep_ = new QPushButton(tr("&Keep"));
  keep_->setObjectName("keepPreset");
  auto* column = static_cast<QVBoxLayout*>(layout());
  addRow(column, tr("Fo&r"), preset_, tr("What the file is for; everything below can still be chosen otherwise"));
  static_cast<QHBoxLayout*>(column->itemAt(column->count() - 1)->layout())->addWidget(keep_);
  connect(preset_, &QComboBox::activated, this, [this](int index) {
    const QList<Preset> all = presets();
    if (index <= 0 || index > all.size()) return;
    wish_ = all[index - 1].wish;
    marginMm_ = wish_.settings.marginMm.value_or(0);
    cutterMm_ = wish_.cutterMm;
    withinMm_ = wish_.settings.toleranceMm;
    emit wished(wish_);
  });
  connect(keep_, &QPushButton::clicked, this, &FileForm::keepAsPreset);
}

void FileForm::buildRows() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  const auto box = [column](const char* name, const QString& label, const QStringList& items, const QString& tip) {
    auto* one = new QComboBox;
    one->setObjectName(name);
    one->addItems(items);
    addRow(column, label, one, tip);
    return one;
  };
  buildLengths();
  kind_ =
      box("kind", tr("&File"), {tr("DXF (2000)"), tr("DXF (R12)"), tr("SVG"), tr("PDF"), tr("EPS"), tr("PNG")},
          tr("DXF R12 is for old controllers; it knows lines and arcs only. PDF, EPS and PNG are to be looked at."));
  form_ = box("form", tr("&Made of"), {}, tr("What the outlines in the file are made of"));
  withinRow_ = new QWidget;
  addRow(partLayout(withinRow_), tr("&within"), within_,
         tr("How far curves may move when they become arcs or lines: the more, the fewer; 0: as the trace suggests"));
  column->addWidget(withinRow_);
  unit_ = box("unit", tr("&Unit"), {tr("millimetres"), tr("inches")}, tr("What the numbers in the file are"));
  // In the order of enum OriginAt.
  origin_ =
      box("originAt", tr("&Begins at"),
          {tr("as drawn"), tr("lower left"), tr("the middle"), tr("lower right"), tr("upper left"), tr("upper right")},
          tr("Where the coordinates of the outlines begin"));
  ofStock_ = new QCheckBox(tr("of the stock"));
  ofStock_->setObjectName("ofStock");
  ofStock_->setToolTip(tr("Not of the box round the outlines, but of the sheet that they are cut from"));
  column->addWidget(ofStock_);
  page_ = box("page", tr("&Page"), {tr("as it is"), tr("round the outlines"), tr("the stock")},
              tr("How large the page is"));
  marginRow_ = new QWidget;
  auto* marginColumn = partLayout(marginRow_);
  addRow(marginColumn, tr("with ro&om of"), margin_, tr("On every side"));
  column->addWidget(marginRow_);
  lookRow_ = new QWidget;
  auto* lookColumn = partLayout(lookRow_);
  look_ = new QComboBox;
  look_->setObjectName("fill");
  look_->addItems({tr("as it fits"), tr("hairlines"), tr("filled")});
  addRow(lookColumn, tr("C&losed ones"), look_,
         tr("How closed outlines look; as it fits: filled where all are closed"));
  column->addWidget(lookRow_);
  elementRow_ = new QWidget;
  auto* elementColumn = partLayout(elementRow_);
  element_ = new QComboBox;
  element_->setObjectName("element");
  // In the order of enum SvgElement.
  element_->addItems({tr("all of a layer"), tr("a part with its holes"), tr("one outline")});
  addRow(elementColumn, tr("A pa&th holds"), element_,
         tr("What other programs take hold of as one thing; only with its holes a part fills right"));
  column->addWidget(elementRow_);
  layers_ = box("layersBy", tr("Layers &by"), {tr("the drawing's own"), tr("where to cut")},
                tr("Where to cut: outside of the borders, inside of holes, along lines, each on a layer"));
  addRow(column, tr("C&utter"), cutter_,
         tr("How wide the machine cuts: what is thinner than that is told; 0: not known"), cutterUnit_);
  fileEach_ = new QCheckBox(tr("One file for &each layer"));
  fileEach_->setObjectName("fileEach");
  column->addWidget(fileEach_);
  note_ = new QCheckBox(tr("With the &note of origin"));
  note_->setObjectName("withOrigin");
  note_->setToolTip(tr("Writes what the Picture step says about the picture's origin into the file"));
  column->addWidget(note_);
}

void FileForm::listPresets() {
  filling_ = true;
  const QList<Preset> all = presets();
  preset_->clear();
  preset_->addItem(tr("as set below"));
  for (const Preset& preset : all) preset_->addItem(preset.name);
  filling_ = false;
}

void FileForm::listForms() {
  const bool before = std::exchange(filling_, true);
  const auto format = static_cast<job::FileFormat>(kind_->currentIndex());
  form_->clear();
  const auto add = [this](const QString& name, CurveForm form) { form_->addItem(name, static_cast<int>(form)); };
  const bool dxf = format == job::FileFormat::Dxf2000 || format == job::FileFormat::DxfR12;
  if (!dxf) add(tr("lines and curves"), CurveForm::Beziers);
  if (dxf || format == job::FileFormat::Svg) add(tr("lines and arcs"), CurveForm::Arcs);
  if (dxf || format == job::FileFormat::Svg) add(tr("straight lines"), CurveForm::Lines);
  if (format == job::FileFormat::Dxf2000) add(tr("lines and splines"), CurveForm::Beziers);
  filling_ = before;
}

void FileForm::show(const job::FileWish& wish, const About& about, Unit unit) {
  const Shown now{wish, about, unit};
  if (shown_ == now) return;
  shown_ = now;
  filling_ = true;
  wish_ = wish;
  const job::ExportSettings& s = wish.settings;
  kind_->setCurrentIndex(static_cast<int>(wish.format));
  listForms();
  filling_ = true;
  const auto usual = form_->itemData(0);
  const int form = s.curves ? form_->findData(static_cast<int>(*s.curves)) : form_->findData(usual);
  form_->setCurrentIndex(std::max(0, form));
  const bool dxf = wish.format == job::FileFormat::Dxf2000 || wish.format == job::FileFormat::DxfR12;
  const bool print = !dxf && wish.format != job::FileFormat::Svg;
  form_->setEnabled(!print);
  const auto chosen = static_cast<CurveForm>(form_->currentData().toInt());
  withinMm_ = s.toleranceMm;
  within_->show(withinMm_ > 0 ? withinMm_ : about.toleranceMm, unit);
  withinRow_->setVisible(!print && chosen != CurveForm::Beziers);
  unit_->setCurrentIndex(s.unit == Unit::Inch ? 1 : 0);
  unit_->setEnabled(!print);
  origin_->setCurrentIndex(static_cast<int>(s.origin));
  page_->setCurrentIndex(s.onStock && about.stock ? kStock : s.marginMm ? kArtwork : kAsItIs);
  allowItem(*page_, kStock, about.stock);
  ofStock_->setChecked(s.ofStock);
  ofStock_->setVisible(about.stock && dxf && s.origin != job::OriginAt::Drawing);
  // A page sets where an SVG begins; a DXF has none.
  origin_->setEnabled(dxf);
  page_->setEnabled(!dxf);
  marginMm_ = s.marginMm.value_or(marginMm_);
  margin_->show(marginMm_, unit);
  marginRow_->setVisible(!dxf && s.marginMm.has_value());
  cutterMm_ = wish.cutterMm;
  cutter_->show(cutterMm_, unit);
  cutterUnit_->setText(unitName(unit));
  look_->setCurrentIndex(!s.filled ? kByItself : *s.filled ? kFilled : kHairlines);
  lookRow_->setVisible(!dxf);
  element_->setCurrentIndex(static_cast<int>(s.element));
  elementRow_->setVisible(wish.format == job::FileFormat::Svg);
  layers_->setCurrentIndex(s.byRole ? 1 : 0);
  fileEach_->setChecked(wish.fileEach && (about.layers || s.byRole));
  fileEach_->setVisible(about.layers || s.byRole);
  note_->setChecked(s.withOrigin);
  note_->setEnabled(about.note);
  namePreset();
}

/// Shows under which name the wish is known, and what can be done about it.
void FileForm::namePreset() {
  listPresets();
  filling_ = true;
  const QList<Preset> all = presets();
  int chosen = 0;
  for (int i = 0; i < all.size(); ++i) {
    if (all[i].wish == wish_) chosen = i + 1;
  }
  preset_->setCurrentIndex(chosen);
  const bool own = chosen > 0 && all[chosen - 1].own;
  keep_->setText(own ? tr("&Drop") : tr("&Keep"));
  keep_->setToolTip(own ? tr("Forget this one") : tr("Keep what is set below under a name"));
  keep_->setEnabled(chosen == 0 || own);
  filling_ = false;
}

void FileForm::take() {
  if (filling_) return;
  job::FileWish wish = wish_;
  job::ExportSettings& s = wish.settings;
  wish.format = static_cast<job::FileFormat>(kind_->currentIndex());
  s.curves = static_cast<CurveForm>(form_->currentData().toInt());
  s.unit = unit_->currentIndex() == 1 ? Unit::Inch : Unit::Millimetre;
  s.origin = static_cast<job::OriginAt>(origin_->currentIndex());
  s.ofStock = ofStock_->isChecked();
  s.onStock = page_->currentIndex() == kStock;
  s.marginMm = page_->currentIndex() == kArtwork ? std::optional(marginMm_) : std::nullopt;
  wish.cutterMm = cutterMm_;
  s.toleranceMm = withinMm_;
  s.element = static_cast<job::SvgElement>(element_->currentIndex());
  s.byRole = layers_->currentIndex() == 1;
  s.filled = look_->currentIndex() == kByItself ? std::nullopt : std::optional(look_->currentIndex() == kFilled);
  s.withOrigin = note_->isChecked();
  wish.fileEach = fileEach_->isChecked();
  wish_ = wish;
  emit wished(wish);
}

void FileForm::keepAsPreset() {
  const QList<Preset> all = presets();
  const int chosen = preset_->currentIndex() - 1;
  if (chosen >= 0 && chosen < all.size() && all[chosen].own) {
    dropPreset(all[chosen].name);
  } else {
    bool accepted = false;
    const QString name = QInputDialog::getText(this, tr("Keep for later"), tr("What is it for?"), QLineEdit::Normal,
                                               QString(), &accepted);
    if (!accepted) return;
    if (!keepPreset(name, wish_)) {
      emit refused(name.trimmed().isEmpty() ? tr("It needs a name to be kept.")
                                            : tr("%1 is there already, and cannot be changed.").arg(name.trimmed()));
      return;
    }
  }
  namePreset();
}

}  // namespace rim::app
