#include "app/steps/picture/picture_panel.h"

#include <QAction>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSpinBox>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/picture/recipe_chooser.h"
#include "app/steps/picture/step_list.h"
#include "app/steps/picture/step_text.h"
#include "app/steps/picture/tool_panel.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
PicturePanel::PicturePanel(Session& session, QAction* open, QAction* paste, QWidget* parent)
    : QWidget(parent), session_(session) {
  QVBoxLayout* column = panelLayout(this, tr("Picture"));
  name_ = addHeading(column, {});
  name_->setTextFormat(Qt::PlainText);
  name_->setWordWrap(true);
  pixels_ = addText(column);
  resolution_ = addText(column);
  page_ = new QSpinBox;
  page_->setObjectName("page");
  page_->setKeyboardTracking(false);
  pageRow_ = new QWidget;
  auto* pageColumn = new QVBoxLayout(pageRow_);
  pageColumn->setContentsMargins(0, 0, 0, 0);
  addRow(pageColumn, tr("Pa&ge"), page_, tr("The page of the document that is traced"));
  column->addWidget(pageRow_);
  connect(page_, &QSpinBox::valueChanged, &session_, &Session::openPage);
  connect(&session_, &Session::failed, this, &PicturePanel::showPage);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(buttonFor(open));
  buttons->addWidget(buttonFor(paste));
  column->addLayout(buttons);
  origin_ = new QLineEdit;
  origin_->setObjectName("origin");
  origin_->setPlaceholderText(tr("where from, under what permission"));
  origin_->setAccessibleName(tr("Origin"));
  origin_->setToolTip(
      tr("Where the picture came from and under what permission; the Export step can write it into the file"));
  connect(origin_, &QLineEdit::editingFinished, this, [this] {
    session_.edit(tr("Note of origin"), {},
                  [text = origin_->text().toStdString()](job::Job& job) { job.origin = text; });
  });
  column->addWidget(origin_);
  buildWorth();
  buildList();
  column->addStretch(1);
}

void PicturePanel::buildWorth() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("What it is worth"));
  worth_ = addText(column);
  worth_->setObjectName("worth");
  remarks_ = new QVBoxLayout;
  column->addLayout(remarks_);
  traceable_ = new QPushButton(tr("&Make it traceable"));
  traceable_->setObjectName("makeTraceable");
  traceable_->setProperty("role", "main");
  traceable_->setToolTip(tr("Straighten, even out the light, calm noise and enlarge: whatever this picture needs"));
  connect(traceable_, &QPushButton::clicked, &session_, &Session::makeTraceable);
  column->addWidget(traceable_);
  recipes_ = new RecipeChooser(session_);
  column->addWidget(recipes_);
}

void PicturePanel::buildList() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("By hand"));
  tools_ = new ToolPanel(session_);
  connect(tools_, &ToolPanel::toolChanged, this, &PicturePanel::toolChanged);
  connect(tools_, &ToolPanel::wanted, this, &PicturePanel::addStep);
  connect(tools_, &ToolPanel::swept, this, &PicturePanel::addStroke);
  connect(&session_, &Session::pictureChanged, tools_, &ToolPanel::followPicture);
  column->addWidget(tools_);
  addHeading(column, tr("What was done"));
  list_ = new StepList;
  list_->setObjectName("stepList");
  connect(list_, &StepList::changed, this, &PicturePanel::change);
  connect(list_, &StepList::refused, this, &PicturePanel::refused);
  column->addWidget(list_);
  add_ = new QPushButton(tr("A&dd"));
  add_->setObjectName("addStep");
  add_->setToolTip(tr("Do something more to the picture. The file itself is never changed."));
  auto* menu = new QMenu(add_);
  const auto offer = [this, menu](const QString& text, const std::function<picture::Preparation()>& make) {
    menu->addAction(text, this, [this, make] { addStep(make()); });
  };
  offer(tr("Straighten a photographed sheet"), [] { return picture::Straighten{}; });
  offer(tr("Even out the light"), [] { return picture::EvenLight{}; });
  offer(tr("Lift shadows"), [] { return picture::LiftShadows{}; });
  offer(tr("Denoise"), [] { return picture::Denoise{}; });
  menu->addSeparator();
  offer(tr("Crop to the ink"), [] { return picture::CropToInk{}; });
  offer(tr("Crop by numbers"), [this] {
    const picture::Picture& picture = session_.job().picture;
    return picture::Crop{0, 0, picture.width(), picture.height()};
  });
  offer(tr("Turn left"), [] { return picture::Turn{90}; });
  offer(tr("Turn right"), [] { return picture::Turn{-90}; });
  offer(tr("Mirror"), [] { return picture::Mirror{}; });
  menu->addSeparator();
  offer(tr("Thicken strokes"), [] { return picture::Thicken{1}; });
  offer(tr("Thin strokes"), [] { return picture::Thicken{-1}; });
  offer(tr("Close small gaps"), [] { return picture::FillGaps{}; });
  offer(tr("Fill pinholes"), [] { return picture::FillPinholes{}; });
  offer(tr("Drop specks"), [] { return picture::DropSpecks{}; });
  offer(tr("Smooth jagged edges"), [] { return picture::SmoothEdges{}; });
  offer(tr("Local threshold"), [] { return picture::LocalThreshold{}; });
  offer(tr("Enlarge"), [] { return picture::Enlarge{}; });
  add_->setMenu(menu);
  column->addWidget(add_);
  addText(column, tr("Hold O to see the picture as it was opened."));
}

void PicturePanel::addStep(const picture::Preparation& what) {
  std::vector<picture::PreparationStep> steps = session_.job().preparation;
  steps.push_back({what});
  session_.edit(stepName(what), {}, [&](job::Job& job) {
    job.preparation = steps;
    // The dark table round a sheet may have looked like the paper of a light drawing.
    if (std::holds_alternative<picture::Straighten>(what)) job.trace.lightIsInk = false;
  });
}

void PicturePanel::addStroke(const picture::BrushStroke& stroke) {
  std::vector<picture::PreparationStep> steps = session_.job().preparation;
  // Strokes that follow each other are one line in the list, each of them a step of undo.
  auto* last = steps.empty() || !steps.back().on ? nullptr : std::get_if<picture::TouchUp>(&steps.back().what);
  if (last != nullptr) {
    last->strokes.push_back(stroke);
  } else {
    steps.push_back({picture::TouchUp{{stroke}}});
  }
  change(steps, stroke.ink ? tr("Paint ink") : tr("Wipe"), {});
}

bool PicturePanel::putToolsAway() {
  const bool there = tools_->active();
  if (there) tools_->putAway();
  return there;
}

void PicturePanel::change(const std::vector<picture::PreparationStep>& steps, const QString& name,
                          const QString& mergeKey) {
  session_.edit(name, mergeKey, [&steps](job::Job& job) { job.preparation = steps; });
}

void PicturePanel::show() {
  const picture::Picture& original = session_.job().original;
  traceable_->setEnabled(!original.empty());
  add_->setEnabled(!original.empty());
  tools_->setEnabled(!original.empty());
  origin_->setEnabled(!original.empty());
  list_->show(session_.job().preparation);
  recipes_->show();
  showPage();
  if (original.empty()) {
    name_->setText(tr("No picture yet"));
    pixels_->setText(tr("A picture can also be dropped on the bench. Its file is only read, never changed."));
    resolution_->clear();
    worth_->clear();
    return;
  }
  if (!origin_->hasFocus()) origin_->setText(QString::fromStdString(session_.job().origin));
  name_->setText(QString::fromStdString(original.name));
  constexpr double kPixelsPerMm = 10;
  pixels_->setText(tr("%1, good for %2 × %3 mm at 10 px per mm")
                       .arg(stateLine(session_))
                       .arg(session_.job().picture.width() / kPixelsPerMm, 0, 'f', 0)
                       .arg(session_.job().picture.height() / kPixelsPerMm, 0, 'f', 0));
  resolution_->setText(original.dotsPerInch > 0
                           ? tr("The file says %1 dots per inch.").arg(original.dotsPerInch, 0, 'f', 0)
                           : tr("No resolution in the file: 96 dots per inch."));
  assessPicture();
}

void PicturePanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  assessPicture();
}

void PicturePanel::assessPicture() {
  const picture::Picture picture = session_.job().picture;
  // What cannot be seen is not measured: it follows when the panel is shown.
  if (picture.empty() || !isVisible() || picture.id == assessed_) return;
  assessed_ = picture.id;
  worth_->setText(measuringText());
  const auto measure = [picture](const std::stop_token&) {
    Finding finding{picture::assess(picture), {}};
    finding.remarks = picture::remarksOn(picture, finding.assessment);
    return finding;
  };
  assessing_.begin(this, measure, [this](const Outcome<Finding>& got) {
    if (got.trouble.isEmpty()) {
      showWorth(got.result);
    } else {
      worth_->setText(tr("It could not be measured: %1").arg(got.trouble));
    }
  });
}

void PicturePanel::showWorth(const Finding& finding) {
  while (QLayoutItem* item = remarks_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  const picture::Assessment& a = finding.assessment;
  worth_->setText(a.hasInk ? tr("strokes %1 px, thinnest %2 px\ncontrast %3, noise %4, edges %5 px\nlight even to %6 %")
                                 .arg(a.strokes.median, 0, 'f', 1)
                                 .arg(a.strokes.thinnest, 0, 'f', 1)
                                 .arg(a.contrast, 0, 'f', 0)
                                 .arg(a.noise, 0, 'f', 1)
                                 .arg(a.edgeWidth, 0, 'f', 1)
                                 .arg(a.evenness * 100, 0, 'f', 0)
                           : QString());
  for (const picture::Remark& remark : finding.remarks) {
    auto* label = new QLabel(QString::fromStdString(remark.sentence));
    label->setObjectName("remark");
    label->setWordWrap(true);
    remarks_->addWidget(label);
    if (remark.help.empty()) continue;
    auto* help = new QPushButton(stepName(remark.help.front().what));
    help->setToolTip(tr("Do this now"));
    const picture::Preparation what = remark.help.front().what;
    connect(help, &QPushButton::clicked, this, [this, what] { addStep(what); });
    remarks_->addWidget(help);
  }
  if (finding.remarks.empty()) {
    auto* label = new QLabel(tr("It will trace well as it is."));
    label->setObjectName("remark");
    remarks_->addWidget(label);
  }
}

void PicturePanel::showPage() {
  const picture::Picture& original = session_.job().original;
  const QSignalBlocker quiet(page_);
  const int pages = original.document ? original.document->pages : 1;
  page_->setRange(1, pages);
  page_->setValue(original.page);
  page_->setSuffix(tr(" of %1").arg(pages));
  pageRow_->setVisible(pages > 1);
}

QString PicturePanel::stateLine(const Session& session) {
  const picture::Picture& picture = session.job().picture;
  if (!session.hasPicture()) return tr("none yet");
  if (picture.empty()) return tr("preparing…");
  return tr("%1 × %2 px").arg(picture.width()).arg(picture.height());
}

}  // namespace rim::app
