#include "core/mend/find/inspect.h"

#include "core/mend/find/in_order.h"
#include "core/mend/find/local_faults.h"
#include "core/mend/find/whole_faults.h"

namespace rim::mend {
namespace {

std::vector<Finding> findingsIn(std::vector<LocalFault> faults) {
  std::vector<Finding> findings;
  findings.reserve(faults.size());
  for (LocalFault& f : faults) findings.push_back(std::move(f.finding));
  return findings;
}

}  // namespace

std::vector<Finding> inspect(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  LocalFaults local = localFaults(drawing, settings, stop);
  std::vector<Finding> findings = findingsIn(std::move(local.faults));
  const std::vector<StrokePair> pairs = strokePairs(drawing, settings.strokeMm);
  for (Finding& f : wholeFaults(drawing, extentsOf(pathsOf(drawing)), local.loose, pairs, settings))
    findings.push_back(std::move(f));
  return inOrder(std::move(findings), placesOf(drawing));
}

std::vector<Finding> inspectTracks(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  return inOrder(findingsIn(trackFaults(drawing, settings, stop)), placesOf(drawing));
}

}  // namespace rim::mend
