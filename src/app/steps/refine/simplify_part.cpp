#include "app/steps/refine/simplify_part.h"

#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>
#include <cmath>

#include "app/errand.h"
#include "app/widgets/counted.h"
#include "app/widgets/fold.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"
#include "core/mend/find/finding.h"

namespace rim::app {
namespace {

constexpr int kSteps = 60;
constexpr double kFinestMm = 0.005;
constexpr double kCoarsestMm = 5;

/// Those of the outlines that are meant, in mm.
Drawing meant(const Drawing& outlines, const std::set<OutlineId>& chosen, double mmPerPixel) {
  return inFrame(chosen.empty() ? outlines : onlyOutlines(outlines, chosen), Frame::Millimetres, mmPerPixel);
}

}  // namespace

SimplifyPart::SimplifyPart(QWidget* parent) : QWidget(parent) {
  auto* fold = new Fold("fewerNodes", tr("Fewer nodes"), false);
  partLayout(this)->addWidget(fold);
  auto* column = fold->inside();
  slider_ = new QSlider(Qt::Horizontal);
  slider_->setObjectName("simplify");
  slider_->setRange(0, kSteps);
  slider_->setToolTip(tr("How far outlines may be left for fewer nodes; corners stay, and nothing comes to cross"));
  slider_->setAccessibleName(tr("Fewer nodes"));
  column->addWidget(slider_);
  told_ = addText(column);
  told_->setObjectName("simplifyTold");
  take_ = new QPushButton(tr("Ta&ke it"));
  take_->setObjectName("takeSimpler");
  column->addWidget(take_);
  connect(slider_, &QSlider::valueChanged, this, &SimplifyPart::look);
  connect(take_, &QPushButton::clicked, this, &SimplifyPart::take);
  tell();
}

SimplifyPart::~SimplifyPart() = default;

double SimplifyPart::withinMm() const {
  const int value = slider_->value();
  return value == 0 ? 0 : kFinestMm * std::pow(kCoarsestMm / kFinestMm, (value - 1.0) / (kSteps - 1));
}

void SimplifyPart::show(std::shared_ptr<const Drawing> outlines, double mmPerPixel, Unit unit) {
  const bool same = outlines == outlines_ && mmPerPixel == mmPerPixel_;
  outlines_ = std::move(outlines);
  mmPerPixel_ = mmPerPixel;
  unit_ = unit;
  slider_->setEnabled(outlines_ != nullptr && !outlines_->outlines.empty());
  if (same) return tell();
  // What was looked at is not there any more.
  reset();
}

void SimplifyPart::setChosen(std::set<OutlineId> chosen) {
  if (chosen == chosen_) return;
  chosen_ = std::move(chosen);
  if (slider_->value() != 0) return look();
  tell();
}

void SimplifyPart::reset() {
  slider_->setValue(0);
  working_.cancel();
  result_.reset();
  tell();
}

void SimplifyPart::look() {
  result_.reset();
  tell();
  if (slider_->value() == 0 || !outlines_) {
    working_.cancel();
    emit previewed({});
    return;
  }
  working_.request([this, outlines = outlines_, chosen = chosen_, k = mmPerPixel_, within = withinMm()](
                       const std::stop_token& overtaken, const auto&) {
    const auto work = [&] {
      const Drawing some = meant(*outlines, chosen, k);
      const refine::Refined refined = refine::done(some, refine::Simplify{within}, overtaken);
      auto result = std::make_shared<Result>();
      result->before = countsOf(pathsOf(some)).nodes;
      result->after = countsOf(pathsOf(refined.drawing)).nodes;
      for (const refine::Change& change : refined.changes) {
        if (change.movedMm < result->mostMm) continue;
        result->mostMm = change.movedMm;
        result->preview.most = change.at * (1 / k);
      }
      for (const Outline& outline : changedOutlines(some, refined.drawing)) {
        const Path path = scaled(outline.path(), 1 / k);
        const auto place = placeOf(*outlines, outline.id);
        if (!place) continue;
        result->preview.goes.push_back(outlines->path(*place));
        result->preview.comes.push_back(path);
        result->changes.push_back(refine::madeByHand(markOf(outlines->outlines[*place]), {path}));
      }
      return std::shared_ptr<const Result>(std::move(result));
    };
    const auto got = outcomeOf(work);
    if (overtaken.stop_requested() || !got.trouble.isEmpty()) return;
    QMetaObject::invokeMethod(this, [this, result = got.result, outlines, chosen, within] {
      if (outlines != outlines_ || chosen != chosen_ || within != withinMm()) return;
      result_ = result;
      tell();
      emit previewed(result_->preview);
    });
  });
}

void SimplifyPart::tell() {
  take_->setEnabled(result_ && result_->after < result_->before);
  const QString whose = chosen_.empty() ? tr("all outlines") : tr("what is chosen");
  const auto size = [this](double mm) { return QString::fromStdString(mend::sizeText(mm, unit_)); };
  if (slider_->value() == 0) {
    told_->setText(tr("Slide to the right: %1 get fewer nodes, within what it says.").arg(whose));
  } else if (!result_) {
    told_->setText(tr("Within %1…").arg(size(withinMm())));
  } else {
    told_->setText(tr("Within %1: %2 become %3; at most %4 off, where the bench marks it.")
                       .arg(size(withinMm()), counted(result_->before, tr("1 node"), tr("%1 nodes")))
                       .arg(result_->after)
                       .arg(size(result_->mostMm)));
  }
}

void SimplifyPart::take() {
  if (!result_) return;
  const auto result = result_;
  const double within = withinMm();
  const bool all = chosen_.empty();
  reset();
  if (all) {
    emit allWanted(refine::Simplify{within});
  } else {
    emit made(tr("Fewer nodes"), result->changes);
  }
}

}  // namespace rim::app
