// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/study_editor.h"

#include "core/logbook/change_log.h"
#include "core/planning/plates.h"
#include "service/workshop_setting.h"

namespace inchpeg
{

StudyEditor::StudyEditor(ProjectFile &file, Person person, Workshop workshop)
    : m_file(file), m_person(std::move(person)), m_workshop(std::move(workshop))
{
}

Status StudyEditor::mayChange() const
{
    if (m_file.isForReading())
        return Error{
            ErrorCode::Storage,
            "the project is open for reading: nothing was changed. Close it where it is being worked "
            "on, and open it again",
            {}};
    return m_refusal ? Status(*m_refusal) : ok();
}

Result<StudyEditor::Brought> StudyEditor::hold(StudyId id)
{
    Result<MendedStudy> loaded = m_file.loadMended(id);
    if (!loaded)
        return loaded.error();
    Brought brought{loaded->mended};
    for (const std::string &sentence : loaded->mended)
        loaded->study.plan.record.push_back({m_person.now(), "Inch Peg", sentence});
    if (!loaded->mended.empty() && !m_file.isForReading())
        brought.kept = m_file.save({std::nullopt, loaded->study});
    m_held = std::make_shared<const Study>(std::move(loaded->study));
    return brought;
}

Status StudyEditor::add(const Study &study)
{
    const Status may = mayChange();
    return may ? m_file.save({std::nullopt, study}) : may;
}

Result<Study> StudyEditor::current(StudyId id)
{
    return m_held && m_held->id == id ? Result<Study>(*m_held) : m_file.loadStudy(id);
}

Status StudyEditor::replace(const Study &before, const Study &after)
{
    std::vector<LoggedChange> changes = loggedChanges(before, after, m_person.name, m_person.now());
    if (const Status status = m_file.save({before, after, std::move(changes)}); !status)
        return status;
    if (m_held && m_held->id == after.id)
        m_held = std::make_shared<const Study>(after);
    return ok();
}

Result<Edited> StudyEditor::edit(StudyId id, const std::string &what,
                                 const std::function<Status(Study &)> &change)
{
    if (const Status status = mayChange(); !status)
        return status.error();
    const Result<Study> before = current(id);
    if (!before)
        return before.error();
    Study changed = *before;
    if (const Status status = change(changed); !status)
        return status.error();
    if (changed == *before)
        return Edited{};
    recordLateChange(*before, changed, m_person.name, m_person.now());
    EditHistory::Step step{what, id, StudyDifference(*before, changed), {}, {}};
    if (const Status status = replace(*before, changed); !status)
        return status.error();
    m_history.add(std::move(step));
    return Edited{id};
}

Result<Edited> StudyEditor::editWorkshop(const std::string &what,
                                         const std::function<Status(Workshop &)> &change)
{
    if (const Status status = mayChange(); !status)
        return status.error();
    Workshop changed = m_workshop;
    if (const Status status = change(changed); !status)
        return status.error();
    if (changed == m_workshop)
        return Edited{};
    if (const Status status = keepWorkshop(m_file, changed); !status)
        return status.error();
    m_history.add({what, {}, {}, m_workshop, changed});
    m_workshop = std::move(changed);
    return Edited{{}, true};
}

std::string StudyEditor::keptText(const std::string &name)
{
    const Result<std::optional<std::string>> kept = m_file.setting(name);
    return kept ? kept->value_or(std::string()) : std::string();
}

Result<Edited> StudyEditor::keepText(const std::string &what, const std::string &name,
                                     const std::string &text)
{
    if (const Status status = mayChange(); !status)
        return status.error();
    const std::string before = keptText(name);
    if (text == before)
        return Edited{};
    if (const Status status = m_file.setSetting(name, text); !status)
        return status.error();
    m_history.add({what, {}, {}, {}, {}, KeptText{name, before, text}});
    return Edited{{}, false, name};
}

Result<Edited> StudyEditor::replay(const EditHistory::Step &step, bool backward)
{
    if (const Status status = mayChange(); !status)
        return status.error();
    if (step.text) {
        const Status status =
            m_file.setSetting(step.text->name, backward ? step.text->before : step.text->after);
        return status ? Result<Edited>(Edited{{}, false, step.text->name}) : status.error();
    }
    if (!step.study) {
        const Workshop &wanted = backward ? *step.workshopBefore : *step.workshopAfter;
        if (const Status status = keepWorkshop(m_file, wanted); !status)
            return status.error();
        m_workshop = wanted;
        return Edited{{}, true};
    }
    const Result<Study> now = current(step.studyId);
    if (!now)
        return now.error();
    const Status status = replace(*now, backward ? step.study->backward(*now) : step.study->forward(*now));
    return status ? Result<Edited>(Edited{step.studyId}) : status.error();
}

Result<Edited> StudyEditor::undo()
{
    const EditHistory::Step *step = m_history.undoStep();
    require(step != nullptr, "nothing to undo");
    Result<Edited> edited = replay(*step, true);
    if (edited)
        m_history.stepBack();
    return edited;
}

Result<Edited> StudyEditor::redo()
{
    const EditHistory::Step *step = m_history.redoStep();
    require(step != nullptr, "nothing to redo");
    Result<Edited> edited = replay(*step, false);
    if (edited)
        m_history.stepForward();
    return edited;
}

} // namespace inchpeg
