// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/log_view.h"

#include "app/log/condition_page.h"
#include "app/log/life_page.h"
#include "app/log/mass_page.h"
#include "app/log/measure_page.h"
#include "app/log/photo_page.h"
#include "app/log/print_page.h"
#include "app/log/typing_page.h"
#include "core/logbook/log_summary.h"
#include "core/logbook/mass_check.h"

#include <QVBoxLayout>

#include <algorithm>

namespace inchpeg::app
{

LogView::LogView(ProjectSession &session, PlanState &plan, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_plan(plan), m_prompts(prompts)
{
    setObjectName(QStringLiteral("logView"));
    m_strip = new StepStrip(
        {tr("Prints"), tr("Measure"), tr("Mass"), tr("Condition"), tr("Type in"), tr("Photos"), tr("Life")},
        QStringLiteral("log"));
    m_pages = new LatePages(7);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(m_strip);
    layout->addWidget(m_pages, 1);
    connect(m_strip, &StepStrip::chosen, this, [this](int part) { showPart(static_cast<LogPart>(part)); });
    connect(&plan, &PlanState::changed, this, &LogView::refresh);
    connect(&session, &ProjectSession::lensChanged, this, &LogView::refresh);
    connect(&session, &ProjectSession::readingsChanged, this, &LogView::refresh);
    showPart(LogPart::Measure);
}

void LogView::showPart(LogPart part)
{
    m_strip->choose(static_cast<int>(part));
    m_pages->setCurrentIndex(static_cast<int>(part));
    refresh();
}

LogPart LogView::part() const
{
    return static_cast<LogPart>(m_pages->currentIndex());
}

void LogView::refresh()
{
    const bool hasStudy = m_session.study() != nullptr;
    setEnabled(hasStudy);
    if (!hasStudy || m_session.lens() != Lens::Log)
        return;
    refreshPage();
    refreshStates();
}

/// Only the page that is seen is made and brought up to date.
void LogView::refreshPage()
{
    const int place = m_pages->currentIndex();
    switch (part()) {
    case LogPart::Print:
        m_pages->made(place, m_print, [this] { return new PrintPage(m_session, m_plan, m_prompts); })
            .refresh();
        break;
    case LogPart::Measure:
        m_pages->made(place, m_measure, [this] { return makeMeasurePage(); }).refresh();
        break;
    case LogPart::Mass:
        m_pages->made(place, m_mass, [this] { return new MassPage(m_session); }).refresh();
        break;
    case LogPart::Condition:
        m_pages->made(place, m_condition, [this] { return new ConditionPage(m_session, m_prompts); })
            .refresh();
        break;
    case LogPart::Type:
        m_pages->made(place, m_typing, [this] { return new TypingPage(m_session); }).refresh();
        break;
    case LogPart::Photos:
        m_pages->made(place, m_photos, [this] { return new PhotoPage(m_session, m_prompts); }).refresh();
        break;
    case LogPart::Life:
        m_pages->made(place, m_life, [this] { return new LifePage(m_session, m_plan); }).refresh();
        break;
    }
}

MeasurePage *LogView::makeMeasurePage()
{
    auto *page = new MeasurePage(m_session, m_prompts);
    connect(page, &MeasurePage::importRequested, this, &LogView::importRequested);
    return page;
}

void LogView::refreshStates()
{
    const Study &study = *m_session.study();
    const auto set = [this](LogPart part, StepState state, const QString &tip) {
        m_strip->setState(static_cast<int>(part), state, tip);
    };
    bool open = false;
    for (const Plate &plate : m_plan.layout().plates) {
        if (plate.printedAt.empty())
            continue;
        for (const ComparedSetting &setting : comparedSettings(study, plate))
            open = open || setting.isOpen();
    }
    const std::size_t printed = study.plan.print.printed.size();
    set(LogPart::Print,
        open          ? StepState::Mind
        : printed > 0 ? StepState::Done
                      : StepState::Open,
        open ? tr("settings differ from the plan: was it meant?") : tr("%1 plates printed").arg(printed));
    const LogCounts counts = logCounts(study);
    const std::size_t all = study.pieces.size();
    set(LogPart::Measure, all > 0 && counts.measured == all ? StepState::Done : StepState::Open,
        tr("%1 of %2 measured").arg(counts.measured).arg(all));
    const MassCheck mass = checkMass(study, m_session.workshop());
    const bool off = mass.isConfound || std::any_of(mass.rails.begin(), mass.rails.end(),
                                                    [](const RailMass &rail) { return !rail.off.empty(); });
    set(LogPart::Mass,
        off                  ? StepState::Mind
        : counts.weighed > 0 ? StepState::Done
                             : StepState::Open,
        counts.weighed > 0 ? QString::fromStdString(mass.headline) : tr("no piece is weighed"));
    const std::vector<TimedStep> &steps = study.log.steps;
    const bool skipped =
        std::any_of(steps.begin(), steps.end(), [](const TimedStep &step) { return step.skipped; });
    set(LogPart::Condition,
        skipped         ? StepState::Mind
        : steps.empty() ? StepState::Open
                        : StepState::Done,
        skipped ? tr("a step was skipped") : tr("%1 steps").arg(steps.size()));
    const auto recorded = std::count_if(study.pieces.begin(), study.pieces.end(),
                                        [](const Piece &piece) { return piece.recording.has_value(); });
    set(LogPart::Type,
        all > 0 && static_cast<std::size_t>(recorded) == all ? StepState::Done : StepState::Open,
        tr("%1 of %2 have a record").arg(recorded).arg(all));
    set(LogPart::Photos, counts.pictured > 0 ? StepState::Done : StepState::Open,
        tr("%1 pieces have photos").arg(counts.pictured));
    set(LogPart::Life, study.pieces.empty() ? StepState::Open : StepState::Done,
        tr("the selected piece on one page"));
}

} // namespace inchpeg::app
